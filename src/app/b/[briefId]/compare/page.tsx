import { CompareView } from "@/ui/compare/CompareView";

export const metadata = { title: "Compare · Fond Quarry" };

export default function Page() {
  return <CompareView />;
}
