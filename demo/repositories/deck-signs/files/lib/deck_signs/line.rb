require "json"

module DeckSigns
  # A route and its stops, as the signs show them.
  class Line
    attr_reader :name, :stops

    def self.load(name)
      path = File.join(__dir__, "..", "..", "lines", "#{name.downcase}.json")
      data = JSON.parse(File.read(path))
      new(data.fetch("name"), data.fetch("stops"))
    end

    def initialize(name, stops)
      @name = name
      @stops = stops
    end

    def next_stop(after)
      index = stops.index(after) or raise KeyError, "#{after} is not a stop of #{name}"
      stops[index + 1]
    end

    def terminus?(stop)
      stops.last == stop
    end

    # How much water there is at a stop, for the sign at its gangway.
    def depth_at(stop, calls)
      "#{calls.depth_feet(stop).round} FT"
    end

    def shallow?(stop, calls)
      calls.depth_metres(stop) < 2.5
    end
  end
end
