import { useEffect, useState } from "react";
import { registerSW } from "virtual:pwa-register";

/** The pages that are kept on this device are of one version until a person asks for the next: nothing changes under a job. */
export function NewVersion() {
  const [load, setLoad] = useState<(() => Promise<void>) | null>(null);
  useEffect(() => {
    const update = registerSW({ onNeedRefresh: () => setLoad(() => () => update(true)) });
  }, []);
  if (!load) return null;
  return (
    <div role="status" className="no-print flex items-center gap-3 border-b-2 border-ink bg-plate px-4 py-2">
      <span>The workshop has a newer version of these pages.</span>
      <button type="button" className="btn" onClick={() => void load()}>
        Load it now
      </button>
    </div>
  );
}
