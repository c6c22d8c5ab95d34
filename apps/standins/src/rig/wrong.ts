/** What is wrong with the rig on purpose, in sentences. */
import { NO_LAMP_FAULTS, type HungLamp, type HungRig } from '@taxiarch/core/truth/hung';

const WORDS = {
  slow: 'answers late',
  refuses: 'takes no setting',
  deaf: 'answers nothing',
  missing: 'is not there',
  dead: 'gives no light',
  coarse: 'has pan and tilt of one slot each',
  likeUid: 'has the UID of another',
} as const;

function wrongLamp({ hung, plug, responder, faults }: HungLamp): string[] {
  const { address, personality } = responder.state;
  const says: string[] = Object.entries(WORDS).flatMap(([key, words]) =>
    faults[key as keyof typeof WORDS] !== NO_LAMP_FAULTS[key as keyof typeof WORDS] ? [words] : [],
  );
  if (address !== hung.state.address) says.push(`is set to ${address ?? 'no address'}`);
  if (personality !== hung.state.personality) says.push(`is in mode ${hung.type.modes[personality - 1]?.name}`);
  if (plug?.box !== hung.plug?.box || plug?.port !== hung.plug?.port)
    says.push(plug ? `hangs on ${plug.box} ${plug.port}` : 'hangs on no cable');
  return says.length > 0 ? [`Lamp ${hung.tag} ${says.join(', ')}.`] : [];
}

export function wrongWith(rig: HungRig): string[] {
  const cables = rig.wrongLines().map(({ box, port, cut, ragged }) => {
    const says = [
      ...(cut === null ? [] : [`is cut behind lamp ${cut}`]),
      ...(ragged > 0 ? [`loses ${Math.round(ragged * 100)} % of the answers`] : []),
    ];
    return `The cable of ${box} ${port} ${says.join(' and ')}.`;
  });
  return [...rig.lamps.flatMap(wrongLamp), ...cables];
}
