import { SignInView } from "@/ui/access/SignInView";

export const dynamic = "force-dynamic";
export const metadata = { title: "Sign in · Fond Quarry" };

export default function SignInPage() {
  return <SignInView />;
}
