module DeckSigns
  # The signs at Skerry Lodge were bought in 1998 and know Latin-1 only.
  module Encoding
    REPLACEMENTS = { "\u2013" => "-", "\u2019" => "'", "\u2026" => "...", "\u20AC" => "EUR" }.freeze

    def self.for_old_sign(text)
      REPLACEMENTS.each { |from, to| text = text.gsub(from, to) }
      text.encode("ISO-8859-1", undef: :replace, replace: "?")
    end
  end
end
