/** The foot of a screen from which lamps are set: that it needs hot, then how it came out; nothing before. */
import type { RollRow } from '@taxiarch/core/truth/roll';
import { AskHot } from './AskHot';
import { Outcomes } from './Outcomes';
import type { LampActs } from './useLampActs';

export const footOf = (acts: LampActs, rows: readonly RollRow[]) =>
  acts.asking || acts.trouble !== '' || acts.results ? (
    <>
      <AskHot acts={acts} />
      {acts.results && <Outcomes results={acts.results} rows={rows} onClose={acts.close} />}
    </>
  ) : undefined;
