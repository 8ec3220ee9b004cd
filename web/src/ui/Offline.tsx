"use client";
import { useEffect } from "react";
import { isKeptPage, PAGES_CACHE } from "@/serviceWorker/pages";

/**
 * Lets the pages last looked at open while the server is away. Not where people sign in: there a page is shown to who
 * is signed in, and kept for nobody.
 */
export function Offline({ isOn }: { readonly isOn: boolean }) {
  useEffect(() => {
    if (!("serviceWorker" in navigator)) return;
    if (isOn) void keep();
    else void forget();
  }, [isOn]);
  return null;
}

async function keep(): Promise<void> {
  try {
    await navigator.serviceWorker.register("/sw.js");
    await navigator.serviceWorker.ready;
    // this page came before there was anybody to keep it
    const cache = await caches.open(PAGES_CACHE);
    const { pathname } = window.location;
    if (isKeptPage(pathname) && !(await cache.match(pathname))) await cache.add(pathname);
  } catch {
    // a browser that keeps nothing works as before, with the server
  }
}
async function forget(): Promise<void> {
  try {
    for (const registration of await navigator.serviceWorker.getRegistrations()) await registration.unregister();
    await caches.delete(PAGES_CACHE);
  } catch {
    // nothing was kept
  }
}
