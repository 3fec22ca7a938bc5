package languages_test

import "testing"

func TestRust(t *testing.T) {
	run(t, []sample{
		{name: "types, traits and what is given to them", file: "shelf.rs", text: `//! The shelf.
use crate::lots::{self, Lot, box_of as boxed, deep::*};
pub use super::side::Side;

#[derive(Debug, Clone)]
pub struct Shelf<'a, T: Fn(&str) -> Option<Lot>> {
    pub name: &'a str,
    take: HashMap<String, Vec<T>>,
}
pub(crate) struct Pair(u8, pub u8);
struct Unit;
pub enum Stage { Damp, #[default] Dry { days: u8 }, Gone(Vec<u8>) = 3 }
pub trait Holder: Named + Kept<u8> {
    const MAX: usize = 4;
    type Item;
    fn free(&self) -> usize { 0 }
    fn put(&mut self, lot: Lot);
}
impl<'a, T> Holder for Shelf<'a, T> where T: Fn(&str) -> Option<Lot> {
    fn put(&mut self, lot: Lot) {
        fn inner(n: u8) {}
    }
}
impl Pair {
    pub const fn new(a: u8, b: u8) -> Self { Pair(a, b) }
    async unsafe fn hidden() {}
}
`, defs: []string{"+class Shelf 5-9", "+property Shelf.name 7-7", "property Shelf.take 8-8", "+class Pair 10-10", "class Unit 11-11", "+enum Stage 12-12", "+constant Stage.Damp 12-12", "+constant Stage.Dry 12-12", "+constant Stage.Gone 12-12", "+interface Holder 13-18", "+constant Holder.MAX 14-14", "+type Holder.Item 15-15", "+method Holder.free 16-16", "+method Holder.put 17-17", "+method Shelf.put 20-22", "function Shelf.put.inner 21-21", "+method Pair.new 25-25", "method Pair.hidden 26-26"},
			imports: []string{"2 crate::lots: ", "2 crate::lots::Lot: Lot", "2 crate::lots::box_of: boxed", "2 crate::lots::deep: *", "3 re-export super::side::Side: Side"}},
		{name: "lifetimes beside characters, raw strings and nested comments", file: "a.rs", text: `fn a<'x>(s: &'x str) -> char { if s == "}" { '}' } else { '\'' } }
const B: &str = r#"fn no() { " }"#;
/* one /* two */ fn no() {} */
static C: &[u8] = b"\"}{";
const D: char = 'é'; const E: u8 = b'{';
fn r#type() -> &'static str { "over
lines }" }
fn last() { 'outer: loop { break 'outer; } }
`, defs: []string{"function a 1-1", "constant B 2-2", "constant C 4-4", "constant D 5-5", "constant E 5-5", "function type 6-7", "function last 8-8"}},
		{name: "modules, macros and items inside macros", file: "lib.rs", text: `mod lots;
pub mod shelf {
    mod slot;
    pub fn open() {}
}
#[path = "odd/place.rs"]
mod place;
#[macro_export]
macro_rules! weigh { ($x:expr) => { fn no() {} }; }
cfg_if! {
    if #[cfg(unix)] { mod unix; fn on_unix() {} } else { mod other; }
}
extern crate serde as s;
extern "C" { fn c_weigh(n: i32) -> i32; }
thread_local! { static X: u8 = 1; }
fn main() { let v = crate::lots::all(); include_str!("a.sql"); }
`, defs: []string{"+namespace shelf 2-5", "+function shelf.open 4-4", "+other weigh 8-9", "function on_unix 11-11", "function c_weigh 14-14", "function main 16-16"},
			imports: []string{"1 lots: ", "3 shelf::slot: ", "7 odd/place.rs: place", "11 unix: ", "11 other: ", "13 serde: ", "16 crate::lots::all: ", "16 a.sql: "}},
		{name: "generics with arrows, shifts and constants", file: "a.rs", text: `pub fn f<F: FnOnce() -> Vec<Vec<u8>>, const N: usize>(f: F, [a, b]: [u8; N]) -> impl Fn(u8) -> u8 where F: Send { move |x| x >> 1 }
type Deep = Option<Box<dyn Fn(u8) -> Result<(), Error>>>;
impl<const N: usize> From<[u8; N]> for Lot { fn from(a: [u8; N]) -> Self { Lot } }
impl dyn Named { fn n() {} }
unsafe impl Send for Lot {}
`, defs: []string{"+function f 1-1", "type Deep 2-2", "+method Lot.from 3-3", "method Named.n 4-4"}},
		{name: "a string that is not closed costs an island", file: "a.rs", partial: true, text: "fn a() { let x = \"open; }\nfn b() {}\n",
			defs: []string{"function a 1-1", "function b 2-2"}},
	})
}

func TestRustLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"modules in files of their own, beside and below": {tree: `
-- Cargo.toml --
[package]
name = "cold-vault"
[dependencies]
serde = { version = "1.2", features = ["derive"] }
-- src/lib.rs --
pub mod lots;
mod shelf;
pub mod prelude { pub use crate::lots::Lot; }
use serde::Serialize;
mod gone;
-- src/lots/mod.rs --
mod rules;
pub use self::rules::Rule;
pub struct Lot;
-- src/lots/rules.rs --
use super::Lot;
pub struct Rule;
-- src/shelf.rs --
mod slot;
use crate::lots::Rule;
-- src/shelf/slot.rs --
use super::super::lots::{Lot, Rule};
-- src/main.rs --
use cold_vault::lots;
fn main() {}
-- tests/all.rs --
use cold_vault::prelude::Lot;
`, links: []string{"src/lib.rs -> src/lots/mod.rs", "src/lib.rs -> src/shelf.rs", "src/lib.rs -> src/lots/mod.rs (re-export)",
			"src/lots/mod.rs -> src/lots/rules.rs", "src/lots/mod.rs -> src/lots/rules.rs (re-export)", "src/lots/rules.rs -> src/lots/mod.rs", "src/main.rs -> src/lots/mod.rs",
			"src/shelf.rs -> src/shelf/slot.rs", "src/shelf.rs -> src/lots/mod.rs", "src/shelf.rs -> src/lots/rules.rs (name via index)",
			"src/shelf/slot.rs -> src/lots/mod.rs", "src/shelf/slot.rs -> src/lots/mod.rs", "src/shelf/slot.rs -> src/lots/rules.rs (name via index)",
			"tests/all.rs -> src/lib.rs", "tests/all.rs -> src/lots/mod.rs (name via index)"},
			external: []string{"serde 1.2"}, unresolved: []string{"mod gone"}},
		"crates of one workspace, programs and named files": {tree: `
-- Cargo.toml --
[workspace]
members = ["words", "desk"]
-- words/Cargo.toml --
[package]
name = "vault-words"
[lib]
path = "src/words.rs"
-- words/src/words.rs --
#[path = "odd/rules_v2.rs"]
pub mod rules;
-- words/src/odd/rules_v2.rs --
mod beside;
pub fn weigh() {}
-- words/src/odd/beside.rs --
-- desk/Cargo.toml --
[package]
name = "desk"
[dependencies]
vault-words = { path = "../words" }
-- desk/src/bin/seed.rs --
fn main() { vault_words::rules::weigh(); let t = include_str!("seed.sql"); }
use vault_words::rules::weigh;
use std::fs;
-- desk/src/bin/seed.sql --
`, links: []string{"desk/src/bin/seed.rs -> desk/src/bin/seed.sql", "desk/src/bin/seed.rs -> words/src/odd/rules_v2.rs",
			"words/src/odd/rules_v2.rs -> words/src/odd/beside.rs", "words/src/words.rs -> words/src/odd/rules_v2.rs"}, external: []string{"std"}},
	})
}
