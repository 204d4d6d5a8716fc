// The basket as the server holds it.
import { useQuery } from "@tanstack/react-query";
import type { Basket } from "@/contracts/libraries";
import { callApi } from "../parts/api";

export const useBasket = () => useQuery({ queryKey: ["basket"], queryFn: () => callApi<Basket>("/basket") });
