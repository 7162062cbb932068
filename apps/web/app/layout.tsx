import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { findSite } from '@barys/store/people';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';
import { Shell } from '@/places/frame/Shell';
import { Providers } from '@/places/frame/Providers';

export const metadata: Metadata = { title: { default: 'Barys', template: '%s · Barys' } };

export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const db = database();
  const [site, acting] = await Promise.all([findSite(db), actingPerson()]);
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
          <Providers zone={site?.timeZone}>
            <Shell siteName={site?.siteName ?? 'No site yet'} isDemo={site?.isDemo ?? false} acting={acting}>
              {children}
            </Shell>
          </Providers>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
