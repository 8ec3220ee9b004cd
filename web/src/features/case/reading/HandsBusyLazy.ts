"use client";
import dynamic from "next/dynamic";

/** Comes with its first use: the case itself need not wait for it. */
export const LazyHandsBusy = dynamic(() => import("./HandsBusy").then((m) => m.HandsBusy), { ssr: false });
