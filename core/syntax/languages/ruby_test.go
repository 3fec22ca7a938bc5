package languages_test

import "testing"

func TestRuby(t *testing.T) {
	run(t, []sample{
		{name: "ends, modifiers and loops", file: "a.rb", text: `module Vault
  class Shelf < Rack::Base
    SLOTS = [1, 2].map do |n|
      n * 2
    end
    attr_reader :lots, :free
    def put(lot, at = nil)
      return if lot.nil?
      x = if lot.dry? then 1 else 2 end
      while x > 0 do
        x -= 1
      end
      until x > 3
        x += 1 unless x == 2
      end
      begin
        lot.each { |l| l.if = 3 } if free?
      rescue Error then nil
      end while x < 9
      lots.each do |l| puts l.end end
    end
    class << self
      def all() = lots.map { |l| l }
      def none = nil
    end
    private
    def hidden?; end
  end
  def self.open = Shelf.new
end
def top(if: 1, class: 2) = case 1
  when 1 then 2
end
def after; end
`, defs: []string{"+namespace Vault 1-30", "+class Vault.Shelf 2-28", "+constant Vault.Shelf.SLOTS 3-5", "+property Vault.Shelf.lots 6-6", "+property Vault.Shelf.free 6-6", "+method Vault.Shelf.put 7-21", "+method Vault.Shelf.all 23-23", "+method Vault.Shelf.none 24-24", "method Vault.Shelf.hidden? 27-27", "+method Vault.open 29-29", "+function top 31-33", "+function after 34-34"}},
		{name: "literals that look like code", file: "a.rb", text: "a = %w[end if do]\nb = /[\"'#]end/ =~ c / 2 / d\nc = <<~A + <<-'B'\n  def no\n  #{x ? \"}\" : '{'}\n  A\n  class No\n  B\nd = ?a + \"#{\"in #{e}\"}\"\ne = x ? y : z\nf = :end, :\"if x\", { if: 1, \"do\": 2 }\n=begin\ndef no; end\n=end\ndef g; %q(end); end\n__END__\ndef no\n",
			defs: []string{"+function g 15-15"}},
		{name: "operators and setters as names", file: "a.rb", text: "class Grams\n  def ==(o) true end\n  def []=(k, v) end\n  def -@; end\n  def value=(v)\n    @v = v\n  end\n  def %(x) x end\n  def class; end\n  def self./(o) end\nend\n",
			defs: []string{"+class Grams 1-11", "+method Grams.== 2-2", "+method Grams.[]= 3-3", "+method Grams.-@ 4-4", "+method Grams.value= 5-7", "+method Grams.% 8-8", "+method Grams.class 9-9", "+method Grams./ 10-10"}},
		{name: "an end too few is said", file: "a.rb", partial: true, text: "class A\n  def b\n    if c\n  end\nend\n", defs: []string{"+class A 1-5", "+method A.b 2-5"}},
	})
}

func TestRubyLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"by path, and by constant from the inside out": {tree: `
-- lib/vault.rb --
require 'vault/shelf'
require_relative 'vault/lots/lot'
require 'json'
require_relative 'none'
module Vault
  autoload :Rack, 'vault/rack'
end
-- lib/vault/shelf.rb --
module Vault
  class Shelf < Rack
    def put(lot = Lots::Lot.new) = "#{Grams.new} String"
    def text = String.new
  end
end
-- lib/vault/rack.rb --
module Vault
  class Rack; end
end
-- lib/vault/lots/lot.rb --
module Vault
  module Lots
    class Lot; end
  end
end
-- lib/grams.rb --
class Grams; end
-- lib/ext.rb --
class String; def x; end; end
`, links: []string{
			"lib/vault.rb -> lib/vault/shelf.rb",
			"lib/vault.rb -> lib/vault/lots/lot.rb",
			"lib/vault.rb -> lib/vault/rack.rb (lazy import)",
			"lib/vault/shelf.rb -> lib/vault/rack.rb",
			"lib/vault/shelf.rb -> lib/vault/rack.rb (inheritance)",
			"lib/vault/shelf.rb -> lib/grams.rb",
			"lib/vault/shelf.rb -> lib/vault/lots/lot.rb",
		}, external: []string{"json"}, unresolved: []string{"none"}},
	})
}

func TestRubyInItsCorners(t *testing.T) {
	run(t, []sample{
		{name: "what may stand before a block and what may not", file: "a.rb", text: `x = [1, 2].each do |a, b = 2|
  a
end
y = while true do break end
z = begin 1 end until done
w = (if a then b else c end)
return if x and not y
puts [if a then 1 end, 2]
foo(->(q) do q end) { |r| r }
v = case when a then 1 else 2 end
t unless u
def m = puts "hi" if true
def n() end
`, defs: []string{"+function m 12-12", "+function n 13-13"}},
		{name: "one-line definitions and rescue in its forms", file: "a.rb", text: `class A; def a; end; end
class B < Struct.new(:x, :y); end
module C def self.b; 1 end end
def d
  e
rescue F, G => h
  i
else
  j
ensure
  k
end
def l() = (m rescue nil)
`, defs: []string{"+class A 1-1", "+method A.a 1-1", "+class B 2-2", "+namespace C 3-3", "+method C.b 3-3", "+function d 4-12", "+function l 13-13"}},
		{name: "names that are words of the language", file: "a.rb", text: `def self.class; self.class.end if obj.if; end
def end_of; {if: 1, end: 2}[:end]; end
def begin?; x&.begin { y }.end; end
alias_method :def, :end
undef class_of
h = { class: A, "if": B, do: C }
foo.then do |x| x end
`, defs: []string{"+method class 1-1", "+function end_of 2-2", "+function begin? 3-3"}},
		{name: "literals one after the other", file: "a.rb", text: "a = %w(a b) + %i[c d] + [%q{e}, %Q<f #{g(\"}\")}>]\nb = a.map { |x| x % 2 / 3 } if /#{c}[\\/]/i.match?(d) && e !~ %r{^/f/}\nf = ?x + ?\\n\ng = <<-ONE.strip + <<~'TWO'\n  end #{h}\n  ONE\n  class No\n  TWO\ni = j <<k\nl = m ? n : o\np = :\"q r\", :s?, :[]=, :+\ndef after; end\n",
			defs: []string{"+function after 12-12"}},
		{name: "private in its forms", file: "a.rb", text: `class A
  def a; end
  private def b; end
  private
  def c; end
  public
  def d; end
  class << self
    def e; end
  end
  protected
  attr_writer :f
end
`, defs: []string{"+class A 1-13", "+method A.a 2-2", "method A.b 3-3", "method A.c 5-5", "+method A.d 7-7", "+method A.e 9-9", "property A.f 12-12"}},
		{name: "constants set, compared and reached into", file: "a.rb", text: `A = 1
B == 2
C::D = 3
E ||= {
  f: 1
}
G, H = 1, 2
I = Class.new(J) do
  def k; end
end
`, defs: []string{"+constant A 1-1", "+constant I 8-10", "+function k 9-9"}},
		{name: "loops with their own do", file: "a.rb", text: `for a in b do c end
for d in e
  f
end
while g.any? { |h| h } do
  i.each do |j| j end
end
until k do l end
loop do m end
def n; end
`, defs: []string{"+function n 10-10"}},
		{name: "names with their path, within others and from the top", file: "a.rb", text: "module A\n  class B::C < D; end\n  class ::E; end\n  module F::G; def h; end; end\nend\nclass I::J; end\n", defs: []string{"+namespace A 1-5", "+class A.B.C 2-2", "+class E 3-3", "+namespace A.F.G 4-4", "+method A.F.G.h 4-4", "+class I.J 6-6"}},
		{name: "comments of pages, and data behind the end", file: "a.rb", text: "=begin\nclass No\n=end\nclass A\nend\n=begin x\n=end\ndef b; end\n__END__\nclass Data\n", defs: []string{"+class A 4-5", "+function b 8-8"}},
	})
}
