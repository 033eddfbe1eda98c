'use client';

import { useEffect, useState } from 'react';
import { wordRefusals } from '@/core/wording/refusals';
import { countEvents } from '@/store/records';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { chooseTheme, type ThemeChoice, themeChoice } from '@/ui/Theme';
import { saveInWorker } from '@/workers/client';
import { OpenBookFile } from '../../shared/OpenBookFile';
import { useRun } from '../../shared/useRun';
import { useOpenBook } from '../../shell/BookContext';
import { bookDb, operatorName, setOperatorName, today } from '../../shell/book';
import { noteSaved } from '../../shell/lastSaved';
import { saveFile } from '../../shell/saveFile';
import { SafeKeeping } from './SafeKeeping';

/** The whole book out and in, and what belongs to this browser alone. */
export function BookFile() {
  const { business } = useOpenBook();
  const run = useRun();
  const [operator, setOperator] = useState('');
  const [theme, setTheme] = useState<ThemeChoice>('system');
  useEffect(() => {
    setOperator(operatorName());
    setTheme(themeChoice());
  }, []);

  const save = () =>
    run.start(
      async (running) => {
        const at = new Date().toISOString();
        const events = await countEvents(bookDb());
        const { bytes, refusals } = await saveInWorker(at, running);
        const name = business.name.replace(/[^A-Za-z0-9]+/g, '-').replace(/^-|-$/g, '');
        saveFile(`${name}-${today()}.able`, bytes, 'application/zip');
        if (refusals.length === 0) noteSaved({ at, events });
        return refusals.length === 0
          ? 'The book file was checked and handed to the browser to save.'
          : `The file was handed to the browser, but it would not open again: ${wordRefusals(refusals)} Keep it together with an older copy, and ask for help before you rely on it.`;
      },
      (fault) => (fault === null ? 'Stopped; no file was made.' : `No file was made: ${fault.message}`),
    );
  return (
    <>
      <SheetTitle>Book file</SheetTitle>
      <p className="mb-4 max-w-[64ch] text-soft">
        The book lives in this browser alone. Save it to a file often; the file holds everything and opens in any
        browser as it was.
      </p>
      <div className="mb-6 flex items-start gap-3">
        <Button weight="main" onClick={() => void save()} disabled={run.doing !== null}>
          Save the book to a file
        </Button>
        {run.doing !== null && (
          <Button weight="quiet" onClick={run.stop}>
            Stop
          </Button>
        )}
        <OpenBookFile />
      </div>
      {run.doing !== null && (
        <div className="mb-3 max-w-[320px]">
          <Progress label="Rows written and checked" {...run.doing} />
        </div>
      )}
      <p role="status" className="mb-4">
        {run.said}
      </p>
      <SafeKeeping />
      <h2 className="mb-1 font-semibold font-serif">This browser</h2>
      <div className="grid max-w-[520px] grid-cols-2 gap-x-4">
        <TextField
          label="Your name"
          hint="Shown on the audit trail"
          value={operator}
          onChange={(event) => setOperator(event.target.value)}
          onBlur={() => setOperatorName(operator)}
        />
        <ChoiceField
          label="Paper"
          options={[
            ['system', 'as the system'],
            ['paper', 'day'],
            ['night', 'night'],
          ]}
          value={theme}
          onChange={(event) => {
            const choice = event.target.value as ThemeChoice;
            setTheme(choice);
            chooseTheme(choice);
          }}
        />
      </div>
    </>
  );
}
