// Texts in the passenger's language; English where a translation is missing.
type Texts = Record<string, string>

const LANGUAGES = ['en', 'ga', 'cy', 'fr', 'de', 'nl', 'da', 'es'] as const
export type Language = (typeof LANGUAGES)[number]

let texts: Texts = {}
let fallback: Texts = {}

export function preferredLanguage(): Language {
  const wanted = navigator.languages.map(tag => tag.slice(0, 2))
  return LANGUAGES.find(language => wanted.includes(language)) ?? 'en'
}

export async function loadTranslations(language: Language): Promise<void> {
  fallback = await load('en')
  texts = language === 'en' ? fallback : await load(language)
}

async function load(language: Language): Promise<Texts> {
  const areas = await Promise.all(['common', 'tickets', 'disturbances'].map(async area => {
    const module = await import(`./translations/${language}/${area}.json`)
    return Object.entries(module.default as Texts).map(([key, text]) => [`${area}.${key}`, text] as const)
  }))
  return Object.fromEntries(areas.flat())
}

export function t(key: string, values: Record<string, string | number> = {}): string {
  const text = texts[key] ?? fallback[key] ?? key
  return text.replace(/\{(\w+)\}/g, (whole, name) => String(values[name] ?? whole))
}
