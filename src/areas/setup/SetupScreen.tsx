'use client';

import Link from '@/ui/Link';
import { IndexColumn, Margin } from '@/ui/Page';
import { RecordSheet } from '../shared/RecordSheet';
import { routes } from '../shell/routes';
import { SECTIONS } from './sections';

/** Setup: one section on the sheet, all of them in the index. */
export function SetupScreen({ section, id }: { readonly section: string; readonly id: string }) {
  const current = SECTIONS.flatMap(({ sections }) => sections).find(({ path }) => path === section);
  const { Margin: Beside } = current ?? {};
  return (
    <>
      <IndexColumn title="Setup">
        <div className="min-h-0 flex-1 overflow-auto">
          {SECTIONS.map(({ title, sections }) => (
            <section key={title} aria-label={title} className="mb-2">
              <h2 className="px-3.5 pt-1 text-soft text-sm">{title}</h2>
              <ul className="pl-3.5">
                {sections.map(({ path, name }) => (
                  <li key={path} className="border-rule border-b">
                    <Link
                      href={routes.section(path)}
                      aria-current={path === section ? 'page' : undefined}
                      className={`-ml-3.5 block border-l-[3px] py-1 pl-[17px] ${path === section ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'}`}
                    >
                      {name}
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          ))}
        </div>
      </IndexColumn>
      <RecordSheet section={current} id={id} area="Setup" />
      {Beside !== undefined && (
        <Margin>
          <Beside />
        </Margin>
      )}
    </>
  );
}
