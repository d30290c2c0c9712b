require "net/http"
require "json"

module DeckSigns
  # Warnings from tidewatch, in words that fit on a sign.
  class Warning
    TIDEWATCH = URI("https://tidewatch.quillhaven.example/v2/surges")

    def self.current
      JSON.parse(Net::HTTP.get(TIDEWATCH)).map { |surge| new(surge["station"], surge["severity"]) }
    rescue SocketError, Timeout::Error
      []
    end

    def initialize(station, severity)
      @station = station
      @severity = severity
    end

    def message
      Message.new("High water at #{@station}. Mind the gangway.", priority: @severity == "severe" ? 9 : 5)
    end
  end
end
