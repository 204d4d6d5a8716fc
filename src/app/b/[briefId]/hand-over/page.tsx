import { HandOverView } from "@/ui/handover/HandOverView";

export const metadata = { title: "Hand over · Fond Quarry" };

export default function Page() {
  return <HandOverView />;
}
