import { LetterView } from "@/ui/letter/LetterView";

export const metadata = { title: "Letter · Fond Quarry" };

export default function Page() {
  return <LetterView />;
}
