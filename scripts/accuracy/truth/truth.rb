# What Ruby's own parser says of a tree: definitions with their lines, and the
# files that require and require_relative name. Prints one JSON object a file.
require 'json'

root = File.realpath(ARGV[0])
files = Dir.glob('**/*.rb', base: root).sort.select { |f| File.file?(File.join(root, f)) && !File.symlink?(File.join(root, f)) }
have = files.to_h { |f| [f, true] }
roots = files.flat_map { |f| d = f.split('/'); d.each_index.select { |i| d[i] == 'lib' }.map { |i| d[0..i].join('/') } }.uniq

# Constants: where each full name is set, and what each file names, with the modules around.
set = Hash.new { |h, k| h[k] = [] }
named = {}
full = lambda do |n|
  next n.children[0].to_s if n.type == :CONST
  next '::' + n.children[0].to_s if n.type == :COLON3
  next nil unless n.type == :COLON2
  next n.children[1].to_s if n.children[0].nil?
  left = full.call(n.children[0])
  left && left + '::' + n.children[1].to_s
end
under = ->(around, name) { name.start_with?('::') ? name[2..] : (around + [name]).join('::') }
gather = lambda do |n, path, around|
  next unless n.is_a?(RubyVM::AbstractSyntaxTree::Node)
  case n.type
  when :CLASS, :MODULE
    name = full.call(n.children[0])
    set[under.call(around, name)] |= [path] if name
    inner = name ? around + [name.delete_prefix('::')] : around
    n.children[1..].each_with_index { |c, k| gather.call(c, path, n.type == :CLASS && k == 0 ? around : inner) }
    next
  when :CDECL
    set[(around + [n.children[0].to_s]).join('::')] |= [path] if n.children[0].is_a?(Symbol)
  when :CONST, :COLON2, :COLON3
    if (name = full.call(n))
      named[path] << [around, name]
      next
    end
  end
  n.children.each { |c| gather.call(c, path, around) }
end
core = Object.constants.map(&:to_s) - %w[JSON Gem DidYouMean ErrorHighlight SyntaxSuggest Psych OpenSSL Ractor Warning Pathname Date StringIO]

trees = {}
files.each do |path|
  named[path] = []
  begin
    old, $VERBOSE = $VERBOSE, nil
    trees[path] = RubyVM::AbstractSyntaxTree.parse(File.read(File.join(root, path), encoding: 'UTF-8'))
    gather.call(trees[path], path, [])
  rescue SyntaxError, ArgumentError, EncodingError
    trees.delete(path) # what the language's own parser refuses is no truth
  ensure
    $VERBOSE = old
  end
end
snake = ->(s) { s.gsub('::', '/').gsub(/([A-Z]+)([A-Z][a-z])/, '\\1_\\2').gsub(/([a-z\d])([A-Z])/, '\\1_\\2').downcase }

files.each do |path|
  begin
    ast = trees[path] or next
  rescue SyntaxError, ArgumentError, EncodingError
    next # what the language's own parser refuses is no truth
  end
  defs = []
  links = {}
  name_of = lambda { |n| n.children.last.is_a?(Symbol) ? n.children.last.to_s : n.children.compact.last.to_s }
  walk = lambda do |n, inside|
    next unless n.is_a?(RubyVM::AbstractSyntaxTree::Node)
    add = ->(kind, name) { defs << { kind: kind, name: name, line: n.first_lineno, end: n.last_lineno } }
    below = inside
    case n.type
    when :CLASS
      add.call('class', name_of.call(n.children[0]))
      below = true
    when :MODULE
      add.call('namespace', name_of.call(n.children[0]))
      below = true
    when :DEFN
      add.call(inside ? 'method' : 'function', n.children[0].to_s)
    when :DEFS
      add.call('method', n.children[1].to_s)
    when :FCALL
      arg = n.children[1]&.children&.first
      if n.children[0] == :autoload && (second = n.children[1]&.children&.at(1)).is_a?(RubyVM::AbstractSyntaxTree::Node) && second.type == :STR
        found = roots.map { |r| "#{r}/#{second.children[0]}.rb" }.select { |t| have[t] }
        links[found[0]] = true if found.length == 1 && found[0] != path
      end
      if %i[require require_relative].include?(n.children[0]) && arg.is_a?(RubyVM::AbstractSyntaxTree::Node) && arg.type == :STR
        text = arg.children[0]
        if n.children[0] == :require_relative
          to = File.expand_path(text, '/' + File.dirname(path))[1..]
          to = [to, to + '.rb'].find { |t| have[t] }
          links[to] = true if to && to != path
        else
          found = roots.map { |r| "#{r}/#{text}.rb" }.select { |t| have[t] }
          links[found[0]] = true if found.length == 1 && found[0] != path
        end
      end
    end
    n.children.each { |c| walk.call(c, below) }
  end
  walk.call(ast, false)
  named[path].uniq.each do |around, name|
    if name.start_with?('::')
      hits = [name[2..]]
    else
      hits = around.length.downto(0).map { |k| (around[0...k] + [name]).join('::') }
    end
    hit = hits.find { |h| set.key?(h) && !set[h].empty? }
    next if hit.nil? || core.include?(hit)
    homes = set[hit]
    unless homes.length == 1
      next if homes.include?(path)
      homes = homes.select { |h| ('/' + h).end_with?('/' + snake.call(hit) + '.rb') }
    end
    links[homes[0]] = true if homes.length == 1 && homes[0] != path
  end
  puts JSON.generate({ path: path, defs: defs, links: links.keys })
end
