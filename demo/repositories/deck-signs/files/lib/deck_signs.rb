module DeckSigns
  WIDTH = 32
  ROWS = 2
end

require_relative "deck_signs/board"
require_relative "deck_signs/encoding"
require_relative "deck_signs/line"
require_relative "deck_signs/message"
require_relative "deck_signs/warning"
