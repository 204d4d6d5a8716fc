import { QuestionsView } from "@/ui/identify/QuestionsView";

export const metadata = { title: "By questions · Fond Quarry" };

export default function Page() {
  return <QuestionsView />;
}
