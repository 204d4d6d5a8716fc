import { RoundsView } from "@/ui/compare/RoundsView";

export const metadata = { title: "Two by two · Fond Quarry" };

export default function Page() {
  return <RoundsView />;
}
