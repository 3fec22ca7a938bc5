package calls_test

import "testing"

// byName are small trees in languages whose bodies are read by names; what is
// called was written down before any was run.
var byName = []smallFile{
	// Rust
	{"what is built by a function of the type, and asked", "a.rs", `
struct Lot { grams: u32 }

impl Lot {
    fn new(grams: u32) -> Lot {
        Lot { grams }
    }

    fn sow(&self) {
        self.dry();
    }

    fn dry(&self) {}
}

fn run() {
    let lot = Lot::new(3);
    lot.sow();
}
`, []string{"Lot.sow -> Lot.dry", "run -> Lot.new", "run -> Lot.sow"}, nil},
	{"a function of a module, by its path", "a.rs", `
mod weights {
    pub fn grams(x: u32) -> u32 {
        round(x)
    }

    fn round(x: u32) -> u32 {
        x
    }
}

fn run() {
    weights::grams(3);
}
`, []string{"weights.grams -> weights.round", "run -> weights.grams"}, nil},
	{"a trait with a body of its own, and what it asks of others", "a.rs", `
trait Weighs {
    fn grams(&self) -> u32;

    fn heavy(&self) -> bool {
        self.grams() > 3
    }
}

struct Lot;

impl Weighs for Lot {
    fn grams(&self) -> u32 {
        count()
    }
}

fn count() -> u32 {
    1
}
`, []string{"Lot -> Weighs (inherit)", "Weighs.heavy -> Weighs.grams", "Lot.grams -> count"}, nil},
	{"parameters with types, borrowed", "a.rs", `
struct Bed;

impl Bed {
    fn water(&mut self) {}
}

fn run(bed: &mut Bed, other: Box<Bed>) {
    bed.water();
    helper(other);
}

fn helper(_bed: Box<Bed>) {}
`, []string{"run -> Bed.water", "run -> helper"}, nil},
	{"macros and texts call nothing of ours", "a.rs", `
fn tare() {}

fn run() {
    println!("tare()");
    // tare();
    let text = "tare()";
    let _ = text;
}
`, []string{}, nil},
	{"fields of the instance that have a type", "a.rs", `
struct Scale;

impl Scale {
    fn tare(&self) {}
}

struct Desk {
    scale: Scale,
}

impl Desk {
    fn run(&self) {
        self.scale.tare();
    }
}
`, []string{"Desk.run -> Scale.tare"}, nil},

	// Perl
	{"methods of the instance, and what is built", "Lot.pm", `
package Lot;

sub new {
    my ($class, %args) = @_;
    return bless { %args }, $class;
}

sub sow {
    my $self = shift;
    $self->dry;
    $self->weigh(3);
}

sub dry {
    return 1;
}

sub weigh {
    return 2;
}

1;
`, []string{"Lot.sow -> Lot.weigh"}, []string{"Lot.sow -> Lot.dry"}},
	{"functions of a package, by their whole name", "a.pl", `
package Weights;

sub grams {
    my ($x) = @_;
    return round($x);
}

sub round {
    return $_[0];
}

package main;

sub run {
    return Weights::grams(3);
}
`, []string{"Weights.grams -> Weights.round", "main.run -> Weights.grams"}, nil},
	{"texts and comments call nothing", "a.pl", `
sub tare {
    return 1;
}

sub run {
    # tare();
    my $a = 'tare()';
    my $b = q{tare()};
    return $a . $b;
}
`, []string{}, nil},

	// C
	{"functions of a file, and pointers to structures", "a.c", `
struct lot { int grams; };

static int weigh(struct lot *l)
{
    return l->grams;
}

static void dry(struct lot *l)
{
    l->grams = weigh(l);
}

int main(void)
{
    struct lot l = { 3 };
    dry(&l);
    return weigh(&l);
}
`, []string{"dry -> weigh", "main -> dry", "main -> weigh"}, nil},
	{"functions of another file, declared in a header", "a.c", `
-- lot.h --
int weigh(int x);
-- lot.c --
#include "lot.h"

int weigh(int x)
{
    return x;
}
-- main.c --
#include "lot.h"

int run(void)
{
    return weigh(3);
}
`, []string{"run -> weigh"}, nil},
	{"what the preprocessor names, texts and comments call nothing", "a.c", `
#define TARE(x) tare(x)

static int tare(int x)
{
    return x;
}

int run(void)
{
    /* tare(1); */
    const char *s = "tare(2)";
    return s != 0;
}
`, []string{}, nil},

	// C++
	{"members of a class, written apart from it", "a.cpp", `
class Lot {
public:
    void sow();
    void dry();
};

void Lot::sow()
{
    dry();
    this->dry();
}

void Lot::dry()
{
}
`, []string{"Lot.sow -> Lot.dry"}, nil},
	{"what is built and asked over a pointer", "a.cpp", `
class Scale {
public:
    void tare() {}
};

void run()
{
    Scale *scale = new Scale();
    scale->tare();
}
`, []string{"run -> Scale (construct)", "run -> Scale.tare"}, nil},
	{"a function of a namespace", "a.cpp", `
namespace vault {
int weigh(int x)
{
    return x;
}
}

int run()
{
    return vault::weigh(3);
}
`, []string{"run -> vault.weigh"}, nil},

	// GDScript
	{"functions of a script, and of one that it extends", "a.gd", `
-- plant.gd --
class_name Plant
extends Node

func water():
	grow(1)

func grow(by):
	pass
-- rose.gd --
class_name Rose
extends Plant

func bloom():
	water()
	super.water()
`, []string{"Rose -> Plant (inherit)", "Plant.water -> Plant.grow", "Rose.bloom -> Plant.water"}, nil},
	{"what is built, and variables with types", "a.gd", `
-- lot.gd --
class_name Lot

func sow():
	pass
-- desk.gd --
class_name Desk

var lot: Lot

func run():
	lot.sow()
	var other = Lot.new()
	other.sow()
`, []string{"Desk.run -> Lot.sow", "Desk.run -> Lot (construct)"}, nil},
	{"texts and comments call nothing there", "a.gd", `
func tare():
	pass

func run():
	# tare()
	var a = "tare()"
	print(a)
`, []string{}, nil},
}

func TestCallsByNamesInSmallTrees(t *testing.T) { holdFiles(t, byName) }
