# class Ghost
require "json"
module DeckSigns
  MOST = 4
  NAMES = %w[class def end module].freeze
  class Sign < Base::Thing
    include Comparable
    attr_reader :text, :width
    attr_accessor :colour
    DEFAULT = "end"
    @@count = 0
    def initialize(text, width: 3)
      @text = text if text
      @width = width unless width.nil?
    end

    def self.build(*args, &block)
      new(*args).tap do |sign|
        yield sign if block_given?
      end
    end

    class << self
      def parse(line)
        case line
        when /end|def x/ then 1
        else 2
        end
      end
    end

    def empty? = text.empty?
    def width=(value)
      @width = value
    end
    def ==(other)
      text == other.text
    end
    def [](index) = text[index]
    def <=>(other); text <=> other.text; end
    def lines
      while @width > 0 do
        @width -= 1
      end
      x = if @width then 1 else 2 end
      [1, 2].each { |i| puts i }
      begin
        risky
      rescue StandardError => e
        puts "def not_here #{e.message + "end"}"
      ensure
        done!
      end until finished?
      text.lines
    end

    private

    def hidden(a = {}, b: [])
      <<~TEXT
        def in_text
        end
      TEXT
    end
    class Inner < Struct.new(:a, :b)
      def sum = a + b
    end
  end

  module Helpers
    def shout(text) text.upcase end
    module_function
    def whisper(text)
      text.class
    end
  end
end
class DeckSigns::Board
  def draw; end
end
def main
  for i in 1..3 do puts i end
  puts :end, x.end
end
module Harbour
  class Ledger
    LIMITS = { low: 1, "end" => 2 }.freeze
    attr_writer :total
    def add(entry) = entries << entry
    def entries
      @entries ||= []
    end
    def each(&block)
      return enum_for(:each) unless block
      entries.each do |entry|
        next if entry.nil?
        block.call(entry)
      end
    end
    def sum
      entries.reduce(0) { |a, b| a + b }
    end
    def -@; self; end
    def call(*, **) = nil
    def self.open(path)
      File.open(path) do |file|
        while (line = file.gets)
          puts line if line =~ /end/
        end
      end
    rescue Errno::ENOENT
      nil
    ensure
      puts "class X"
    end
    class Missing < StandardError; end
    alias size sum
    protected def secret = 42
  end
  def format_row(row)
    case row
    in { name: String => name } then name
    in [] then ""
    end
  end
  begin
    LATE = 1
  end
  PROC = ->(x) { x + 1 }
  if RUBY_VERSION > "3"
    def modern; end
  end
  until false do break end
  x = [1, 2].map do |i| i end
  def last(a, b = (1..2).map { |i| i }) a end
end
class Berth
  attr_accessor :id, :depth
  KINDS = [:a, :b]
  def initialize(id) = @id = id
  def to_s = "Berth #{@id ? "end" : 'x'}"
  def hash; @id.hash; end
  def eql?(other) = other.is_a?(Berth) && id == other.id
  def ! = false
  def save!; true; end
  def self.all = @all ||= []
end
def helper(x) = x
def other
  unless true then 1 end
end
module Tail
  def self.go = nil
end
=begin
class InComment
=end
Point = Struct.new(:x, :y) do
  def norm = 1
end
module Gauges
  class Old
    KINDS = [:if, :def, :class].freeze unless false
    def self.[](key) = key
    def two= value
      @module = value
    end
    def after
      repos = {}
      repos[$'] = $" if :name= if @class
      puts "at #{unless @end; 'the ' end} pier"
      x.dir == '/' ? dir : dir.chomp(?/)
      y = list.
        for(1).
        end
      until x or
            y do
        x.shift
      end
      start {
        z = f(x)
        if z
          z
        end
      }
      case x
      when /^\s*#{y / 2}"def/i then 1
      end
      puts %{def not here #{if y then 1 end}}
      puts /class "x/
      z = <<~TEXT
        def nothing #{"end" if y}
      TEXT
    end
    def +(other) = other
    alias / +
    def it.%(x) = x
    def self::open; end
  end
  Old::LATE = 1
  def last; end
end

__END__
class After
