import { JobsView } from "@/ui/jobs/JobsView";

export const metadata = { title: "Jobs · Fond Quarry" };

export default function Page() {
  return <JobsView />;
}
