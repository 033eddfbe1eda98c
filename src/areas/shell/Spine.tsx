'use client';

import { usePathname, useRouter } from 'next/navigation';
import Link from '@/ui/Link';
import { AREAS } from './areas';
import { leave } from './LeaveGuard';
import { useKey } from './useKey';

/** The six areas, icon over word; Alt and a digit go there. */
export function Spine() {
  const path = usePathname();
  const router = useRouter();
  useKey('area', ({ key }) => {
    const area = AREAS.find((one) => one.key === key);
    if (area !== undefined) leave(() => router.push(area.path));
  });
  return (
    <nav
      aria-label="Areas"
      className="flex w-16 shrink-0 flex-col items-stretch border-rule border-r-[3px] border-double"
    >
      <div aria-hidden="true" className="flex h-12 items-center justify-center font-bold font-serif text-xl">
        Al
      </div>
      {AREAS.map(({ path: to, name, icon: Icon, key }) => {
        const current = path.startsWith(to);
        return (
          <Link
            key={to}
            href={to}
            title={`${name} (Alt+${key})`}
            aria-current={current ? 'page' : undefined}
            className={`flex h-[52px] flex-col items-center justify-center gap-0.5 text-xs ${current ? 'border-rule border-y bg-sheet text-ink' : 'text-soft hover:text-ink'}`}
          >
            <Icon size={18} strokeWidth={1.6} aria-hidden="true" className={current ? 'text-rust' : ''} />
            {name}
          </Link>
        );
      })}
    </nav>
  );
}
