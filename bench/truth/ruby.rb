# Writes what Ruby's own parser says of Ruby files, as DumpedTruth reads it: ruby ruby.rb FOLDER… >DUMP
require "ripper"

Token = Struct.new(:text, :line)
Found = Struct.new(:name, :line, :last, :path, :in_method)
# What stands below a place of the tree: declarations, symbols that may be arguments of attr_reader, and a name.
Node = Struct.new(:found, :symbols, :name, :last_token)

# Methods, classes, modules, constants that are assigned, and what attr_reader and its like make.
class Reader < Ripper
  SCANNER_EVENTS.each { |event| define_method("on_#{event}") { |text| Token.new(text, lineno) } }

  def node(parts, found = [], name: nil, symbols: true)
    below = parts.flatten.select { |part| part.is_a?(Node) }
    token = parts.flatten.reverse.find { |part| part.is_a?(Token) } || below.last&.last_token
    Node.new(found + below.flat_map(&:found), symbols ? below.flat_map(&:symbols) : [], name, token)
  end

  PARSER_EVENTS.each { |event| define_method("on_#{event}") { |*parts| node(parts) } }

  def on_var_ref(token) = node([token], name: token.is_a?(Token) ? token.text : nil)

  def on_var_field(token) = node([token], name: token.is_a?(Token) ? token.text : nil)

  def on_const_ref(token) = node([token], name: token.text)

  def on_top_const_ref(token) = node([token], name: "::#{token.text}")

  def on_const_path_ref(outer, token) = node([outer, token], name: "#{outer.name}::#{token.text}")

  def on_const_path_field(outer, token) = node([outer, token], name: "#{outer.name}::#{token.text}")

  def on_symbol(token)
    made = node([token])
    made.symbols = [token]
    made
  end

  def inside(body)
    body.found.each { |found| found.in_method = true }
  end

  def on_def(name, parameters, body)
    inside(body)
    ends = body.is_a?(Node) && body.name == :body ? lineno : nil
    node([parameters, body], [Found.new(name.text, name.line, ends, [], false)], symbols: false)
  end

  def on_defs(target, _, name, parameters, body)
    inside(body)
    ends = body.is_a?(Node) && body.name == :body ? lineno : nil
    node([parameters, body], [Found.new(name.text, name.line, ends, [], target.name != "self")], symbols: false)
  end

  def on_bodystmt(*parts) = node(parts, name: :body)

  def scope(constant, parts, body)
    body.found.each { |found| found.path.unshift(constant.name.delete_prefix("::")) }
    token = constant.last_token
    own = Found.new(token.text, token.line, lineno, [], constant.name.include?("::"))
    node(parts, [own], symbols: false)
  end

  def on_class(constant, parent, body) = scope(constant, [parent, body], body)

  def on_module(constant, body) = scope(constant, [body], body)

  def on_assign(left, right)
    made = node([right])
    token = left.is_a?(Node) ? left.last_token : nil
    if left.is_a?(Node) && left.name.is_a?(String) && left.name.match?(/(\A|::)\p{Lu}\w*\z/)
      made.found.unshift(Found.new(token.text, token.line, nil, [], left.name.include?("::")))
    end
    made
  end

  def attributes(token, arguments, made)
    return made unless token.is_a?(Token) && token.text.match?(/\Aattr_(reader|writer|accessor)\z/)
    made.found += arguments.symbols.map { |symbol| Found.new(symbol.text, symbol.line, nil, [], true) }
    made
  end

  def on_command(token, arguments) = attributes(token, arguments, node([token, arguments], symbols: false))

  def on_fcall(token) = node([token], name: token.is_a?(Token) ? token : nil)

  def on_method_add_arg(call, arguments) = attributes(call.name, arguments, node([call, arguments], symbols: false))
end

COMMENTS = %i[on_comment on_embdoc on_embdoc_beg on_embdoc_end].freeze
STRINGS = %i[on_tstring_beg on_tstring_content on_tstring_end on_backtick on_regexp_beg on_regexp_end
             on_heredoc_end on_words_beg on_qwords_beg on_symbols_beg on_qsymbols_beg on_words_sep on_CHAR on_embexpr_beg on_embexpr_end on_ignored_sp].freeze

def regions(text)
  starts = [0]
  text.each_line { |line| starts << starts.last + line.bytesize }
  Ripper.lex(text).filter_map do |(line, column), type, token, _|
    next ["R", "comment", starts[line - 1], text.bytesize].join("\t") if type == :on___end__
    quoted = STRINGS.include?(type) || %i[on_symbeg on_label_end].include?(type) && token.match?(/["']/)
    region = COMMENTS.include?(type) ? "comment" : quoted ? "string" : nil
    from = starts[line - 1] + column
    size = (%i[on_comment on_embdoc_end on_heredoc_end].include?(type) ? token.chomp : token).bytesize
    if type == :on_symbeg
      from += 1 # the colon is code
      size -= 1
    end
    ["R", region, from, from + size].join("\t") if region
  end
end

ARGV.flat_map { |folder| File.directory?(folder) ? Dir.glob("#{folder}/**/*.rb").sort : [folder] }.each do |path|
  text = File.binread(path).force_encoding("UTF-8")
  next if !text.valid_encoding? || text.include?("\r") || text.start_with?("\uFEFF")
  reader = Reader.new(text)
  tree = reader.parse
  next if reader.error? || !tree.is_a?(Node)
  puts "F\t#{path}"
  tree.found.uniq { |found| found.last.nil? && found.name.match?(/\A\p{Lu}/) ? [found.name, found.path, found.in_method] : found.object_id }.each do |found|
    puts ["D", found.name, found.line, found.last || "-", found.in_method ? "-" : found.path.join("::")].join("\t")
  end
  puts regions(text)
end
