/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    person: import('./services/people').Person | undefined;
    /** What was asked for; undefined where there is nothing. */
    route: import('./contract/routes').Found | undefined;
    /** The shop of the chain that is looked into. */
    looking: string | undefined;
    theme: 'light' | 'dark' | undefined;
  }
}
