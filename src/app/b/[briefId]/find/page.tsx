import { FindView } from "@/ui/find/FindView";

export const metadata = { title: "Find · Fond Quarry" };

export default function Page() {
  return <FindView />;
}
