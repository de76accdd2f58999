import { inject, provide, shallowRef, type InjectionKey } from 'vue';

/** Somebody who reads without an account: how numbers are written for them, and what units are called. */
const visit = shallowRef<{ locale: string; units: Readonly<Record<string, string>> } | null>(null);
const INERT: InjectionKey<boolean> = Symbol('inert');

export const useVisit = () => visit;

/** Nothing on this page leads to other screens. */
export const leadNowhere = (): void => provide(INERT, true);
export const useLeadsNowhere = (): boolean => inject(INERT, false);
