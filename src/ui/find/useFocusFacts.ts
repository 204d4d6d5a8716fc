"use client";
// What the foot line says of the face in focus.
import { useEffect } from "react";
import type { ShownItem } from "@/contracts/styles";
import { useBench } from "../bench/BenchContext";
import { factsOf } from "./facts";
import { setFocusedFace } from "./focusedFace";

export function useFocusFacts(focused: ShownItem | undefined) {
  const { dispatch } = useBench();
  useEffect(() => {
    dispatch({ type: "facts", facts: focused ? factsOf(focused) : [] });
    setFocusedFace(focused ?? null);
  }, [focused, dispatch]);
}
