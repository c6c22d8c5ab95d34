/** A machine of the network as a type without channels, so that a scene can hold it (GDTF 1.2, WiringObject). */
import { guidOf } from '../../arrival';
import { DESCRIPTION } from './gdtf';
import { makeZip } from './zip';
import { writeXml, XmlElement } from './xml';

const HERE = '{1,0,0,0}{0,1,0,0}{0,0,1,0}{0,0,0,1}';

/** `ports`: its interfaces, `ethernet_1` and so on, as the scene’s addresses name them. */
export function machineGdtf(
  { maker, name }: { readonly maker: string; readonly name: string },
  ports: number,
): Uint8Array {
  const sockets = Array.from(
    { length: ports },
    (_, i) =>
      new XmlElement('WiringObject', {
        Name: `ethernet_${i + 1}`,
        Position: HERE,
        ConnectorType: 'RJ45',
        SignalType: 'Ethernet',
        ComponentType: 'NetworkProvider',
      }),
  );
  const type = new XmlElement(
    'FixtureType',
    {
      Name: name,
      ShortName: name,
      LongName: `${maker} ${name}`,
      Manufacturer: maker,
      Description: 'A machine of the network; it takes no channels.',
      FixtureTypeID: guidOf(`machine ${maker} ${name} ${ports}`).toUpperCase(),
      Thumbnail: '',
      RefFT: '',
      CanHaveChildren: 'No',
    },
    [
      new XmlElement('AttributeDefinitions', {}, [new XmlElement('FeatureGroups'), new XmlElement('Attributes')]),
      new XmlElement('Wheels'),
      new XmlElement('PhysicalDescriptions'),
      new XmlElement('Models'),
      new XmlElement('Geometries', {}, [new XmlElement('Geometry', { Name: 'Body', Position: HERE }, sockets)]),
      new XmlElement('DMXModes', {}, [
        new XmlElement('DMXMode', { Name: 'Network', Geometry: 'Body' }, [
          new XmlElement('DMXChannels'),
          new XmlElement('Relations'),
          new XmlElement('FTMacros'),
        ]),
      ]),
      new XmlElement('Revisions'),
      new XmlElement('FTPresets'),
      new XmlElement('Protocols'),
    ],
  );
  return makeZip({ [DESCRIPTION]: writeXml(new XmlElement('GDTF', { DataVersion: '1.2' }, [type])) });
}
