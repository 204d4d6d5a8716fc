"use client";
// The list of all keys that can be pressed now: opened by "?" and from the foot line.
import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { writeKeys } from "./keymap";
import { useKeyList } from "./useKeys";

export function KeyHelp({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  const parts = useKeyList();
  return (
    <Dialog open={isOpen} onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-slate/40" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center p-6">
        <DialogPanel className="max-h-full w-[560px] max-w-full overflow-y-auto border border-slate bg-limestone p-6">
          <DialogTitle className="text-[16px] font-semibold">Keys</DialogTitle>
          {parts
            .filter((p) => p.bindings.some((b) => b.legend))
            .map((part, i) => (
              <section key={`${part.name} ${i}`} className="mt-4">
                <h3 className="head">{part.name}</h3>
                <dl className="mt-1 grid grid-cols-[110px_minmax(0,1fr)] gap-x-4">
                  {part.bindings
                    .filter((b) => b.legend)
                    .map((b) => (
                      <div key={writeKeys(b)} className="contents">
                        <dt className="border-b border-rule py-1.5">
                          <kbd className="key">{writeKeys(b)}</kbd>
                        </dt>
                        <dd className="border-b border-rule py-1.5">{b.legend}</dd>
                      </div>
                    ))}
                </dl>
              </section>
            ))}
          <button type="button" className="btn mt-5" onClick={onClose}>
            Close
          </button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
