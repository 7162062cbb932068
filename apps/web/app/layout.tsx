import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { findSite, listPeople } from '@barys/store';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata } from 'next';
import { revalidatePath } from 'next/cache';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { database } from '@/server/database';
import { actingPerson, rememberPerson } from '@/server/person';
import { Shell } from '@/ui/Shell';
import { Providers } from './providers';

export const metadata: Metadata = { title: { default: 'Barys', template: '%s · Barys' } };

async function choosePerson(id: number): Promise<void> {
  'use server';
  await rememberPerson(id);
  revalidatePath('/', 'layout');
}

export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const db = database();
  const [site, people, acting] = await Promise.all([findSite(db), listPeople(db), actingPerson()]);
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript
          attribute="data-scheme"
          defaultMode="light"
          {...(nonce === undefined ? {} : { nonce })}
        />
        <AppRouterCacheProvider
          options={{ enableCssLayer: false, ...(nonce === undefined ? {} : { nonce }) }}
        >
          <Providers>
            <Shell
              siteName={site?.siteName ?? 'No site yet'}
              isDemo={site?.isDemo ?? false}
              people={people}
              acting={acting}
              choose={choosePerson}
            >
              {children}
            </Shell>
          </Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
