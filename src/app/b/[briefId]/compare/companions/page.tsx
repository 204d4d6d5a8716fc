import { CompanionsView } from "@/ui/compare/CompanionsView";

export const metadata = { title: "Companions · Fond Quarry" };

export default function Page() {
  return <CompanionsView />;
}
