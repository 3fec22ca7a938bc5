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
