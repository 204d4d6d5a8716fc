import { IdentifyView } from "@/ui/identify/IdentifyView";

export const metadata = { title: "Identify · Fond Quarry" };

export default function Page() {
  return <IdentifyView />;
}
