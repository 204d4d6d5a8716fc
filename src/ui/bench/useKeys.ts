"use client";
// The one keymap of the page, and how views register with it.
import { useEffect, useRef, useSyncExternalStore } from "react";
import { Keymap, type Binding } from "./keymap";

const keymap = new Keymap();
const NOTHING: ReturnType<Keymap["list"]> = [];

/** Registers keys for as long as the component is there. @param name - of the part of the interface, as the list of keys says it. */
export function useKeys(name: string, bindings: readonly Binding[], { isOn = true, isBase = false } = {}) {
  const part = useRef<ReturnType<Keymap["add"]>>(null);
  useEffect(() => {
    if (!isOn) return;
    const own = (part.current = keymap.add(name, isBase));
    return () => {
      part.current = null;
      own.remove();
    };
  }, [name, isOn, isBase]);
  useEffect(() => part.current?.put(bindings));
}

/** What can be pressed now, the newest part first. */
export const useKeyList = () => useSyncExternalStore(keymap.subscribe, keymap.list, () => NOTHING);

/** Listens for the whole page. */
export function useKeyListener() {
  useEffect(() => {
    const onDown = (event: KeyboardEvent) => {
      if (keymap.press(event)) event.preventDefault();
    };
    const onUp = (event: KeyboardEvent) => keymap.release(event.key);
    const onBlur = () => keymap.releaseAll();
    window.addEventListener("keydown", onDown);
    window.addEventListener("keyup", onUp);
    window.addEventListener("blur", onBlur);
    return () => {
      window.removeEventListener("keydown", onDown);
      window.removeEventListener("keyup", onUp);
      window.removeEventListener("blur", onBlur);
    };
  }, []);
}
