import { SketchView } from "@/ui/identify/SketchView";

export const metadata = { title: "From a sketch · Fond Quarry" };

export default function Page() {
  return <SketchView />;
}
