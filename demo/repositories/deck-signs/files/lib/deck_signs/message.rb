module DeckSigns
  # A text for one row. Longer ones scroll.
  class Message
    attr_reader :text, :priority

    def initialize(text, priority: 0)
      raise ArgumentError, "an empty message would blank the sign" if text.strip.empty?

      @text = text
      @priority = priority
    end

    def scrolls?
      text.length > WIDTH
    end

    # The row as it looks at a moment, counted in steps since it appeared.
    def row(step)
      return text.ljust(WIDTH) unless scrolls?

      looped = "#{text}   "
      (looped * 2)[step % looped.length, WIDTH]
    end
  end
end
