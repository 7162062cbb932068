import { configurationsOf } from '@barys/store/registers';
import { ChooseVersions } from '@/places/instruments/ChooseVersions';
import { VersionTable } from '@/places/instruments/VersionTable';
import { database } from '@/server/database';
import { Columns } from '@/ui/Columns';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { loadInstrument, type Params } from '@/places/instruments/load';

export const metadata = { title: 'Versions of the configuration' };

type Search = Promise<{ left?: string; right?: string }>;

export default async function VersionsPage({
  params,
  searchParams,
}: {
  params: Params;
  searchParams: Search;
}) {
  const instrument = await loadInstrument(params);
  const versions = await configurationsOf(database(), instrument.id);
  const { left, right } = await searchParams;
  const pick = (text: string | undefined, usual: number) =>
    versions.find(({ version }) => String(version) === text) ?? versions[usual] ?? versions[0];
  const isOne = versions.length === 1;
  const shown = (isOne ? [versions[0]] : [pick(left, 1), pick(right, 0)]).filter((one) => one !== undefined);
  return (
    <>
      <PageHead title={`${instrument.tag}: versions of the configuration`} about={instrument.service}>
        <LinkButton href={`/instruments/${instrument.tag}/configure`}>New version</LinkButton>
        <LinkButton href={`/instruments/${instrument.tag}`}>Back to {instrument.tag}</LinkButton>
      </PageHead>
      {!isOne && (
        <ChooseVersions
          versions={versions.map(({ version }) => version)}
          chosen={shown.map(({ version }) => version)}
        />
      )}
      <Columns columns="1fr 1fr">
        {shown.map((configuration, side) => (
          <Sheet
            key={side}
            title={`Version ${configuration.version}`}
            aside={configuration.version === versions[0]?.version ? 'in force' : 'superseded'}
          >
            <Stave body={instrument.body} configuration={configuration} />
          </Sheet>
        ))}
        <Sheet sx={{ gridColumn: '1 / -1' }} title={isOne ? 'The only version so far' : 'Side by side'}>
          <VersionTable versions={shown} />
        </Sheet>
      </Columns>
    </>
  );
}
