require "minitest/autorun"
require_relative "../lib/deck_signs"

class MessageTest < Minitest::Test
  def test_a_long_message_scrolls
    message = DeckSigns::Message.new("Please keep the gangway clear until the ferry has moored.")
    assert message.scrolls?
    refute_equal message.row(0), message.row(1)
  end

  def test_an_empty_message_is_refused
    assert_raises(ArgumentError) { DeckSigns::Message.new("  ") }
  end
end
