import { cookies } from "next/headers";
import { SESSION_COOKIE } from "@/contracts/access";
import { isLoopbackOnly } from "@/server/access/hosts";
import { roleOf } from "@/server/access/sessions";
import { AccessView } from "@/ui/access/AccessView";

export const dynamic = "force-dynamic";
export const metadata = { title: "Access · Fond Quarry" };

export default async function AccessPage() {
  const role = roleOf((await cookies()).get(SESSION_COOKIE)?.value);
  return <AccessView role={role} isLoopbackOnly={isLoopbackOnly()} />;
}
