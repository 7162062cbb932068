import { fieldsOfConfiguration } from '@/instruments/fields';
import { ConfigureForm } from '@/instruments/InstrumentForm';
import { PageHead } from '@/ui/PageHead';
import { loadInstrument, type Params } from '../load';

export const metadata = { title: 'New configuration' };

export default async function ConfigurePage({ params }: { params: Params }) {
  const { id, tag, service, body, configuration } = await loadInstrument(params);
  return (
    <>
      <PageHead
        title={`${tag}: version ${configuration.version + 1} of the configuration`}
        about={`${service}. Version ${configuration.version} stays readable. A changed range means a calibration, a new label, and telling everybody downstream.`}
      />
      <ConfigureForm id={id} tag={tag} body={body} initial={fieldsOfConfiguration(configuration)} />
    </>
  );
}
