require "minitest/autorun"
require_relative "../lib/deck_signs"

class EncodingTest < Minitest::Test
  def test_a_dash_becomes_a_hyphen
    assert_equal "R4 - Thornsea", DeckSigns::Encoding.for_old_sign("R4 \u2013 Thornsea")
  end
end
