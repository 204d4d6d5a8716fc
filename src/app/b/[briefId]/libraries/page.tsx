import { LibrariesView } from "@/ui/libraries/LibrariesView";

export const metadata = { title: "Libraries · Fond Quarry" };

export default function Page() {
  return <LibrariesView />;
}
