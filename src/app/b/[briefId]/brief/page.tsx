import { BriefView } from "@/ui/brief/BriefView";

export const metadata = { title: "Brief · Fond Quarry" };

export default function Page() {
  return <BriefView />;
}
