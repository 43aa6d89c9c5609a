/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    person: import('./services/people').Person | undefined;
    theme: 'light' | 'dark' | undefined;
  }
}
