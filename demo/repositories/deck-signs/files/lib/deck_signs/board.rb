module DeckSigns
  # Decides what the rows show: the next stop above, the most urgent message below.
  class Board
    def initialize(line)
      @line = line
      @messages = []
    end

    def announce(message)
      @messages << message
      @messages.sort_by! { |each| -each.priority }
    end

    def rows(stop, step)
      following = @line.next_stop(stop)
      first = following ? "Next stop: #{following}" : "This is the last stop"
      second = @messages.first&.row(step) || ""
      [first.ljust(WIDTH), second.ljust(WIDTH)]
    end

    def run(out)
      @line.stops.each { |stop| out.puts(rows(stop, 0)) }
    end
  end
end
