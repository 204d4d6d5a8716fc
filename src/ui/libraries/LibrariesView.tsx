"use client";
// Libraries: what is connected, bringing in, the basket, the font log. Which part is open stands in the address.
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from "@headlessui/react";
import { parseAsString, parseAsStringLiteral, useQueryStates } from "nuqs";
import { useEffect } from "react";
import { useBench } from "../bench/BenchContext";
import { Arrivals } from "./Arrivals";
import { BasketPanel } from "./BasketPanel";
import { Connected } from "./Connected";
import { FontLog } from "./FontLog";
import { useBasket } from "./useBasket";

const PARTS = ["connected", "arrivals", "basket", "log"] as const;
const useLibrariesAddress = () =>
  useQueryStates(
    {
      tab: parseAsStringLiteral(PARTS).withDefault("connected"),
      import: parseAsString,
      q: parseAsString.withDefault(""),
    },
    { history: "replace" },
  );

export function LibrariesView() {
  const { dispatch } = useBench();
  const [address, setAddress] = useLibrariesAddress();
  const inBasket = useBasket().data?.lines.length ?? 0;
  useEffect(() => dispatch({ type: "facts", facts: [] }), [dispatch]);
  const names = ["Connected", "Import", inBasket ? `Basket (${inBasket})` : "Basket", "Font log"];
  return (
    <div className="h-full overflow-y-auto px-6 py-4">
      <div className="max-w-[1080px]">
        <h1 className="sr-only">Libraries</h1>
        <TabGroup
          selectedIndex={PARTS.indexOf(address.tab)}
          onChange={(i) => void setAddress({ tab: PARTS[i]!, ...(PARTS[i] !== "arrivals" && { import: null }) })}
        >
          <TabList className="flex gap-6 border-b-2 border-slate">
            {names.map((name) => (
              <Tab
                key={name}
                className="pb-2 text-[16px] font-bold text-basalt data-selected:text-slate data-selected:underline data-selected:decoration-oxide data-selected:decoration-2 data-selected:underline-offset-[11px]"
              >
                {name}
              </Tab>
            ))}
          </TabList>
          <TabPanels>
            <TabPanel tabIndex={-1}>
              <Connected />
            </TabPanel>
            <TabPanel tabIndex={-1}>
              <Arrivals importId={address.import} onImport={(id) => void setAddress({ tab: "arrivals", import: id })} />
            </TabPanel>
            <TabPanel tabIndex={-1}>
              <BasketPanel />
            </TabPanel>
            <TabPanel tabIndex={-1}>
              <FontLog q={address.q} onAsk={(q) => void setAddress({ q: q || null })} />
            </TabPanel>
          </TabPanels>
        </TabGroup>
      </div>
    </div>
  );
}
