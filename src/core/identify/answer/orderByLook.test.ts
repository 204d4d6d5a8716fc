import { expect, test } from "@jest/globals";
import { orderByLook } from "./orderByLook";

const face = (name: string, score: number, kinds: string[], treatments: string[] = []) => ({
  name,
  score,
  kinds,
  treatments,
});
const namesOf = ({ faces }: { faces: { name: string }[] }) => faces.map((f) => f.name);

test("the kind and treatment of the nearest come first, then the kind, then the rest, each as near as it came", () => {
  const looked = orderByLook([
    face("a", 0.8, ["script"], ["rough"]),
    face("b", 0.79, ["serif"]),
    face("c", 0.78, ["script"], ["rough"]),
    face("d", 0.77, ["handwritten", "script"], ["rough"]),
    face("e", 0.76, ["script"]),
  ]);
  expect(looked).toMatchObject({ kind: "script", treatments: ["rough"] });
  expect(namesOf(looked)).toEqual(["a", "c", "d", "e", "b"]);
});

test("where none of the nearest is treated, plain faces come before treated ones", () => {
  const looked = orderByLook([
    face("shadowed", 0.7, ["sans"], ["shadow"]),
    face("plain", 0.68, ["sans"]),
    face("also", 0.67, ["sans"]),
  ]);
  expect(looked.treatments).toEqual([]);
  expect(namesOf(looked)).toEqual(["plain", "also", "shadowed"]);
});

test("many that are far do not outvote one that is near", () => {
  const far = ["a", "b", "c", "d", "e", "f"].map((name) => face(name, 0.3, ["sans"]));
  expect(orderByLook([...far, face("near", 0.8, ["blackletter"])])).toMatchObject({ kind: "blackletter" });
});

test("nothing near, and faces without a kind, are no fault", () => {
  expect(orderByLook([])).toEqual({ kind: null, treatments: [], faces: [] });
  expect(namesOf(orderByLook([face("a", 0.2, []), face("b", 0.3, [])]))).toEqual(["b", "a"]);
});
