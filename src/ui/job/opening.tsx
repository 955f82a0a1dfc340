import type { FirstLook } from '@/contract/jobs';

/** A job while it is being read: its board where it will lie. Drawn by the server, so that it is there before any script. */
export function Opening({ first }: { first: FirstLook }) {
  return (
    <div className="flex h-dvh flex-col lg:min-h-[640px]">
      <header className="flex min-h-14 items-center gap-5 border-b border-base-300 bg-base-100 px-4 max-sm:px-2">
        <span className="slab text-xl whitespace-nowrap">
          <span className="max-sm:hidden">zealous </span>
          <span className="text-primary">grain</span>
        </span>
        <h1 className="slab truncate text-lg">{first.name}</h1>
      </header>
      <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <div className="shrink-0 border-base-300 bg-base-100 max-lg:h-13 max-lg:border-b lg:w-[118px] lg:border-r" />
        <main className="flex min-h-0 min-w-0 flex-1 flex-col gap-2 p-3 max-lg:pb-34 max-sm:p-1.5">
          <p role="status" className="soft flex min-h-8 items-center text-sm">
            Opening the job.
          </p>
          <div className="relative min-h-0 flex-1 overflow-hidden rounded-xl border border-base-300 bg-[color-mix(in_oklab,var(--color-base-300)_45%,var(--color-base-200))] p-6.5">
            {first.picture && (
              // biome-ignore lint/performance/noImgElement: a picture made by our own server
              <img
                src={first.picture}
                alt={`${first.name} from above`}
                className="size-full object-contain"
                fetchPriority="high"
                data-testid="first-picture"
              />
            )}
          </div>
          <div className="h-[172px] shrink-0 rounded-xl border border-base-300 bg-base-100" />
          <div className="h-[71px] shrink-0 max-sm:hidden" />
        </main>
        <div className="w-[306px] shrink-0 border-l border-base-300 bg-base-100 max-lg:hidden 2xl:w-[380px]" />
      </div>
    </div>
  );
}
