/** Typical weight of a 12 V lead-acid battery for each Ah (20 h), kg: 110 Ah weighs about 30 kg. Engineering default. */
export const typicalLeadKgPerAh = 0.27
