// What happened and what now, beside the place where it happened.

export function FaultNote({ fault: { what, now } }: { fault: { what: string; now: string } }) {
  return (
    <div role="alert" className="mt-2 border-l-2 border-madder pl-3">
      <p className="font-semibold text-madder">{what}</p>
      <p>{now}</p>
    </div>
  );
}
