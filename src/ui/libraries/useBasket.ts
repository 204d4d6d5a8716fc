// The basket as the server holds it.
import { useQuery } from "@tanstack/react-query";
import { queryOf } from "../parts/client";

export const useBasket = () => useQuery(queryOf("getBasket", {}));
