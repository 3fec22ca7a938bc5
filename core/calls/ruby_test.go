package calls_test

import "testing"

// ruby are small trees in Ruby; what is called was written down before any was run.
var ruby = []smallFile{
	{"classes of other files by their path", "a.rb", `
-- lib/vault/lot.rb --
module Vault
  class Lot
    def sow
    end
  end
end
-- lib/vault/desk.rb --
require_relative 'lot'
module Vault
  class Desk
    def run
      Lot.new.sow
    end
  end
end
`, []string{"Vault.Desk.run -> Vault.Lot (construct)", "Vault.Desk.run -> Vault.Lot.sow"}, nil},
	{"two classes of one name in two modules", "a.rb", `
module A
  class Lot
    def go
    end
  end
end

module B
  class Lot
    def dry
    end
  end

  def self.run
    Lot.new.dry
    A::Lot.new.go
  end
end
`, []string{"B.run -> B.Lot (construct)", "B.run -> B.Lot.dry", "B.run -> A.Lot (construct)", "B.run -> A.Lot.go"}, nil},
	{"calls without parentheses and with arguments", "a.rb", `
def weigh(lot, unit = nil)
end

def tare
end

def run
  weigh 3, :gram
  tare
  puts tare
end
`, []string{"run -> weigh", "run -> tare"}, nil},
	{"blocks that are handed on, and yield", "a.rb", `
class Bed
  def each(&block)
    rows.each(&block)
  end

  def rows
    []
  end

  def twice
    yield
    yield
  end

  def run
    twice { rows }
    each do |row|
      twice { row }
    end
  end
end
`, []string{"Bed.each -> Bed.rows", "Bed.run -> Bed.twice", "Bed.run -> Bed.rows", "Bed.run -> Bed.each"}, nil},
	{"a method by its symbol", "a.rb", `
class Lot
  def dry
  end

  def run
    send(:dry)
    method(:dry).call
    [1].each(&method(:dry))
    public_send(:dry)
  end
end
`, []string{"Lot.run -> Lot.dry"}, nil},
	{"what runs before an action", "a.rb", `
class LotsController
  before_action :find, only: [:show]

  def show
  end

  private

  def find
  end
end
`, []string{"LotsController -> LotsController.find"}, nil},
	{"a struct with methods", "a.rb", `
Point = Struct.new(:x, :y) do
  def far
    near
  end

  def near
  end
end

def run
  Point.new(1, 2).far
end
`, []string{"far -> near", "run -> Point (construct)"}, []string{"run -> Point.far"}},
	{"module functions", "a.rb", `
module Weights
  module_function

  def grams(x)
    round(x)
  end

  def round(x)
  end
end

def run
  Weights.grams(1)
end
`, []string{"Weights.grams -> Weights.round", "run -> Weights.grams"}, nil},
	{"modules that extend themselves", "a.rb", `
module Weights
  extend self

  def grams(x)
  end
end

Weights.grams(3)
`, []string{"-> Weights.grams"}, nil},
	{"aliases, and the old under its new name", "a.rb", `
class Lot
  def dry
  end
  alias_method :parch, :dry
  alias wilt dry

  def run
    parch()
    wilt()
  end
end
`, []string{}, []string{"Lot.run -> Lot.dry"}},
	{"delegated methods", "a.rb", `
class Scale
  def tare
  end
end

class Desk
  delegate :tare, to: :scale

  def scale
    @scale ||= Scale.new
  end

  def run
    tare()
  end
end
`, []string{"Desk.scale -> Scale (construct)"}, []string{"Desk.run -> Scale.tare"}},
	{"constants that hold what is built", "a.rb", `
class Scale
  def tare
  end
end
DEFAULT = Scale.new

def run
  DEFAULT.tare
end
`, []string{"DEFAULT -> Scale (construct)", "run -> Scale.tare"}, nil},
	{"chains that give themselves", "a.rb", `
class Query
  def where(a)
    self
  end

  def order(a)
    where(a)
  end

  def all
  end
end

def run
  Query.new.where(1).order(2).all
end
`, []string{"Query.order -> Query.where", "run -> Query (construct)", "run -> Query.where", "run -> Query.order", "run -> Query.all"}, nil},
	{"safe navigation, and conditions as values", "a.rb", `
class Lot
  def sow
  end
end

def run(flag)
  lot = flag ? Lot.new : nil
  lot&.sow
end
`, []string{"run -> Lot (construct)", "run -> Lot.sow"}, nil},
	{"what a branch gives", "a.rb", `
class A
  def go
  end
end

class B
  def go
  end
end

def pick(x)
  if x
    A.new
  else
    B.new
  end
end

def run
  pick(1).go
end
`, []string{"pick -> A (construct)", "pick -> B (construct)", "run -> pick", "run -> B.go", "run -> A.go"}, nil},
	{"methods of the class in their short form", "a.rb", `
class Lot
  class << self
    def create(x)
      new(x).tap(&:save)
    end

    private

    def check
    end
  end

  def save
  end
end
Lot.create(1).save
`, []string{"Lot.create -> Lot (construct)", "-> Lot.create", "-> Lot.save", "Lot.create -> Lot.save"}, nil},
	{"heirs call what is in their base, and the base what its heirs write", "a.rb", `
class Job
  def perform
    work
  end

  def work
    raise NotImplementedError
  end
end

class Sow < Job
  def work
    tell
  end

  def tell
  end
end
`, []string{"Sow -> Job (inherit)", "Job.perform -> Job.work", "Job.perform ~> Sow.work", "Sow.work -> Sow.tell"}, nil},
	{"instance variables set by another method", "a.rb", `
class Scale
  def tare
  end
end

class Desk
  def prepare
    @scale = Scale.new
  end

  def run
    prepare
    @scale.tare
  end
end
`, []string{"Desk.prepare -> Scale (construct)", "Desk.run -> Desk.prepare", "Desk.run -> Scale.tare"}, nil},
	{"writers that are called", "a.rb", `
class Lot
  def grams=(x)
    check(x)
  end

  def check(x)
  end

  def run
    self.grams = 3
    grams = 4
  end
end
`, []string{"Lot.grams= -> Lot.check", "Lot.run -> Lot.grams="}, nil},
	{"operators that are defined", "a.rb", `
class Weight
  def +(other)
    sum(other)
  end

  def [](i)
    sum(i)
  end

  def sum(x)
  end
end
`, []string{"Weight.+ -> Weight.sum", "Weight.[] -> Weight.sum"}, nil},
	{"texts with calls in braces", "a.rb", "\ndef tare\nend\n\ndef run\n  a = \"x #{tare()} y\"\n  b = 'x #{tare()}'\n  `ls #{a}`\nend\n", []string{"run -> tare"}, nil},
	{"keywords of arguments and hashes are no calls", "a.rb", `
def dry
end

def sow(dry:, wet: nil)
  dry
end

def run
  sow(dry: 1)
  { dry: 2, 'sow' => 3 }
end
`, []string{"run -> sow"}, nil},
	{"a rescue at the end of a line, ensure and retry", "a.rb", `
def open
end

def shut
end

def run
  open() rescue nil
  begin
    open()
  ensure
    shut()
  end
end
`, []string{"run -> open", "run -> shut"}, nil},
	{"a class that is opened again", "a.rb", `
-- a.rb --
class Lot
  def sow
    dry
  end
end
-- b.rb --
class Lot
  def dry
  end
end
`, []string{"Lot.sow -> Lot.dry"}, nil},
	{"a refinement of what is not ours", "a.rb", `
class String
  def seedy?
    clean.empty?
  end

  def clean
    strip
  end
end

def run
  "x".seedy?
end
`, []string{"String.seedy? -> String.clean", "run ~> String.seedy?"}, nil},
	{"a lambda that is called", "a.rb", `
def tare
end

def run
  f = ->(x) { tare }
  f.call(1)
  f.(2)
  g = lambda { |y| tare }
  g[3]
end
`, []string{"run -> tare"}, nil},
	{"a class made in place is no base, and a parameter called new builds nothing", "a.rb", `
class Pair < Struct.new(:a)
  def swap(new)
    take(new)
  end

  def take(x)
  end
end

def go(&block)
  block.call
end

list = [1].map(&:go)
a, b = go, 2
a.swap
a.take_out
class Pair
  def take_out
  end
end
`, []string{"Pair.swap -> Pair.take", "-> go", "~> Pair.take_out"}, nil},
	{"a module's own methods are not mixed in, those set apart for classes are", "a.rb", `
module Finds
  def self.all
  end

  def one
  end

  module ClassMethods
    def many
    end
  end
end

class Lot
  include Finds

  many

  def run
    all
    one
  end
end
`, []string{"Lot -> Finds (inherit)", "Lot -> Finds.ClassMethods.many", "Lot.run -> Finds.one"}, nil},
	{"what two files write under one name is only likely", "a.rb", `
-- a.rb --
class Lot
  def dry
  end
end
-- b.rb --
class Lot
  def dry
  end

  def run
    dry
    wet
  end

  def wet
  end
end
`, []string{"Lot.run ~> Lot.dry", "Lot.run -> Lot.wet"}, nil},
	{"case with types", "a.rb", `
class A
  def go
  end
end

def run(x)
  case x
  when A
    x.go
  when nil then 1
  end
end
`, []string{"run -> A.go"}, nil},
}

func TestRubyInSmallTrees(t *testing.T) { holdFiles(t, ruby) }
