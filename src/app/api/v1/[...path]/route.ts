// Every request of the HTTP interface: handed to the table of operations.
import { api } from "@/server/operations/api";

export const dynamic = "force-dynamic";
export const maxDuration = 120;

const serve = (request: Request) => api.fetch(request);
export { serve as GET, serve as POST, serve as PUT, serve as PATCH, serve as DELETE };
