import { ShortlistView } from "@/ui/shortlist/ShortlistView";

export const metadata = { title: "Shortlist · Fond Quarry" };

export default function Page() {
  return <ShortlistView />;
}
