/** Scenes as other programs write them. */
import { strToU8 } from 'fflate';
import { nightFerry } from '../../../../whole/demo';
import { rigOf } from '../../../../rig/patch';
import { recordsAfter } from '../../../../show/edit';
import { emptyShow, type ShowRecords } from '../../../../show/records';
import { compareRig, planImport } from '../../../arrival';
import { makeZip, type MvrContent, openZip, readMvr, writeGdtf } from '..';

let ids = 0;

export const newId = () => `new-${(ids += 1)}`;

export const ferry = nightFerry();

export const none = () => undefined;

export const contentOf = (bytes: Uint8Array): MvrContent => {
  const content = readMvr(bytes);
  if (!content.ok) throw new Error(content.why);
  return content.value;
};

export const sceneOf = (bytes: Uint8Array) => {
  const entries = openZip(bytes);
  return entries.ok ? new TextDecoder().decode(entries.value['GeneralSceneDescription.xml']) : '';
};

export const spot = ferry.type.find(({ id }) => id === 'type-spot-16')!;

export const FOREIGN = `<GeneralSceneDescription verMajor="1" verMinor="5">
  <UserData><Data provider="Somebody">kept</Data></UserData>
  <Scene><AUXData><Position uuid="P1" name="Rail"/></AUXData><Layers>
    <Layer name="Mast" uuid="L1"><Matrix>{0,1,0}{-1,0,0}{0,0,1}{1000,0,5000}</Matrix><ChildList>
      <GroupObject name="Yard" uuid="G1"><Matrix>{1,0,0}{0,1,0}{0,0,1}{0,500,0}</Matrix><ChildList>
        <Fixture name="Masthead" uuid="11111111-2222-4333-8444-555555555555">
          <Matrix>{1,0,0}{0,1,0}{0,0,1}{2000,0,0}</Matrix>
          <GDTFSpec>Baleen@Spot 16.gdtf</GDTFSpec><GDTFMode>Basic</GDTFMode>
          <Focus>F1</Focus><FixtureID>12a</FixtureID><Gobo rotation="3">anchor.png</Gobo>
          <Addresses><Address break="0">2.100</Address></Addresses>
        </Fixture>
        <Truss name="Yardarm" uuid="T1"/>
      </ChildList></GroupObject>
    </ChildList></Layer>
  </Layers></Scene>
</GeneralSceneDescription>`;

export const foreign = makeZip({
  'GeneralSceneDescription.xml': strToU8(FOREIGN),
  'Baleen@Spot 16.gdtf': writeGdtf(spot),
  'anchor.png': Uint8Array.of(7),
});

/** A scene of fixtures, each given by the elements within it. */
export const sceneWith = (
  fixtures: readonly string[],
  more: { aux?: string; entries?: Record<string, Uint8Array> } = {},
) =>
  makeZip({
    'sub/generalscenedescription.XML': strToU8(
      `<GeneralSceneDescription verMajor="1" verMinor="6"><Scene><AUXData>${more.aux ?? ''}</AUXData><Layers><Layer name="L" uuid="00000000-0000-4000-8000-00000000000a"><ChildList>${fixtures.join('')}</ChildList></Layer></Layers></Scene></GeneralSceneDescription>`,
    ),
    'gdtf/BALEEN@SPOT 16.gdtf': writeGdtf(spot),
    ...more.entries,
  });

export const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export const fixture = (n: number, inside: string, name = `F${n}`) =>
  `<Fixture name="${name}" uuid="${uuid(n)}"><GDTFSpec>Baleen@Spot 16.gdtf</GDTFSpec><GDTFMode> Basic  </GDTFMode>${inside}</Fixture>`;

export const taken = (bytes: Uint8Array, into: ShowRecords = { ...emptyShow(), show: ferry.show }) => {
  const rig = rigOf(into);
  const content = contentOf(bytes);
  return recordsAfter(
    into,
    planImport(
      rig,
      { incoming: content, rows: compareRig(rig, content).filter(({ state }) => state !== 'gone'), sentence: 'In' },
      newId,
    ).changes,
  );
};
