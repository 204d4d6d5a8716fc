// Where the picture of a brief is: another picture is another address.
import type { Brief } from "@/contracts/brief";
import { addressOf } from "./client";

export const addressOfPicture = ({ briefId, picture }: Pick<Brief, "briefId" | "picture">) =>
  `${addressOf("getBriefPicture", { params: { id: briefId } })}?v=${picture}`;
