import { DocumentsView } from "@/ui/identify/DocumentsView";

export const metadata = { title: "Fonts of a document · Fond Quarry" };

export default function Page() {
  return <DocumentsView />;
}
