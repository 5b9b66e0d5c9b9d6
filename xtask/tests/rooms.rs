//! Which way the files of the core may use each other: its folders are rooms that know only those before them, and no files
//! go round in a circle.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

use syn::visit::{self, Visit};

/// The rooms of the core: each knows only those above it in this list.
const ROOMS: &[&str] =
    &["values", "parts", "notation", "setup", "car", "judgement", "road", "records", "answers"];

const SRC: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../crates/fitment/src");

/// A module's path from the crate's root, as `["car", "corner", "shape"]`.
type ModulePath = Vec<String>;

/// What a file uses, and what it passes on under its own name.
#[derive(Default)]
struct File {
    uses: Vec<Vec<String>>,
    /// What it re-exports: the name, and where that is from.
    passes_on: BTreeMap<String, Vec<String>>,
}

/// Reads whole `use` trees, and every path in expressions and types; tests are left out.
struct Reader<'a> {
    module: &'a ModulePath,
    file: File,
}

impl Reader<'_> {
    /// A path from the crate's root. One that leads out of the crate ends at this file.
    fn rooted(&self, path: &[String]) -> Vec<String> {
        let mut base = self.module.clone();
        let mut rest = path;
        match path.first().map(String::as_str) {
            Some("crate") => {
                base.clear();
                rest = &path[1..];
            }
            Some("super") => {
                while rest.first().is_some_and(|one| one == "super") {
                    base.pop();
                    rest = &rest[1..];
                }
            }
            Some("self") => rest = &path[1..],
            _ => {}
        }
        base.extend(rest.iter().cloned());
        base
    }

    fn tree(&mut self, tree: &syn::UseTree, before: &[String], is_passed_on: bool) {
        let with = |ident: &syn::Ident| {
            let mut path = before.to_vec();
            path.push(ident.to_string());
            path
        };
        let (path, name) = match tree {
            syn::UseTree::Path(path) => {
                let before = with(&path.ident);
                return self.tree(&path.tree, &before, is_passed_on);
            }
            syn::UseTree::Group(group) => {
                for one in &group.items {
                    self.tree(one, before, is_passed_on);
                }
                return;
            }
            syn::UseTree::Glob(_) => (before.to_vec(), None),
            syn::UseTree::Name(name) if name.ident == "self" => (before.to_vec(), before.last().cloned()),
            syn::UseTree::Name(name) => (with(&name.ident), Some(name.ident.to_string())),
            syn::UseTree::Rename(name) => (with(&name.ident), Some(name.rename.to_string())),
        };
        let path = self.rooted(&path);
        if let Some(name) = name.filter(|_| is_passed_on) {
            self.file.passes_on.insert(name, path);
        } else {
            self.file.uses.push(path);
        }
    }
}

fn is_of_tests(attributes: &[syn::Attribute]) -> bool {
    attributes.iter().any(|one| {
        one.path().is_ident("cfg")
            && one.parse_args::<syn::Ident>().is_ok_and(|condition| condition == "test")
    })
}

impl<'ast> Visit<'ast> for Reader<'_> {
    fn visit_item_mod(&mut self, item: &'ast syn::ItemMod) {
        if !is_of_tests(&item.attrs) {
            visit::visit_item_mod(self, item);
        }
    }

    fn visit_item_use(&mut self, item: &'ast syn::ItemUse) {
        if !is_of_tests(&item.attrs) {
            let is_passed_on = !matches!(item.vis, syn::Visibility::Inherited);
            self.tree(&item.tree, &[], is_passed_on);
        }
    }

    fn visit_path(&mut self, path: &'ast syn::Path) {
        let names: Vec<String> = path.segments.iter().map(|one| one.ident.to_string()).collect();
        let leads_away = ["crate", "super", "self"].contains(&names[0].as_str());
        if leads_away {
            let path = self.rooted(&names);
            self.file.uses.push(path);
        }
        visit::visit_path(self, path);
    }
}

fn module_of(path: &Path) -> ModulePath {
    let relative = path.strip_prefix(SRC).unwrap().with_extension("");
    let mut names: ModulePath = relative.iter().map(|one| one.to_string_lossy().into_owned()).collect();
    if names.last().is_some_and(|last| last == "mod" || last == "lib") {
        names.pop();
    }
    names
}

fn files() -> BTreeMap<ModulePath, File> {
    let mut left = vec![PathBuf::from(SRC)];
    let mut found = BTreeMap::new();
    while let Some(path) = left.pop() {
        if path.is_dir() {
            left.extend(std::fs::read_dir(&path).unwrap().map(|entry| entry.unwrap().path()));
        } else if path.extension().is_some_and(|extension| extension == "rs") {
            let module = module_of(&path);
            let text = std::fs::read_to_string(&path).unwrap();
            let mut reader = Reader { module: &module, file: File::default() };
            reader.visit_file(&syn::parse_file(&text).unwrap());
            let file = reader.file;
            found.insert(module, file);
        }
    }
    found
}

/// The file that a path leads to, whoever passes it on.
fn leads_to(files: &BTreeMap<ModulePath, File>, path: &[String]) -> ModulePath {
    let mut path = path.to_vec();
    for _ in 0..8 {
        let most = (0..=path.len()).rev().find(|most| files.contains_key(&path[..*most])).unwrap_or(0);
        let (module, rest) = path.split_at(most);
        let Some(passed_on) = rest.first().and_then(|name| files[module].passes_on.get(name)) else {
            return module.to_vec();
        };
        let further: Vec<String> = passed_on.iter().chain(&rest[1..]).cloned().collect();
        if further == path {
            return module.to_vec();
        }
        path = further;
    }
    path
}

/// Each file with the files it uses; itself left out.
fn arrows() -> BTreeMap<ModulePath, BTreeSet<ModulePath>> {
    let files = files();
    let of = |(module, file): (&ModulePath, &File)| {
        let used = file.uses.iter().map(|path| leads_to(&files, path));
        let used = used.filter(|used| used != module && !used.is_empty()).collect();
        (module.clone(), used)
    };
    files.iter().map(of).collect()
}

fn said(module: &[String]) -> String {
    module.join("/")
}

#[test]
fn no_room_of_the_core_knows_one_below_it() {
    let place = |module: &[String]| ROOMS.iter().position(|room| *room == module[0]);
    let mut wrong = Vec::new();
    for (module, used) in arrows().into_iter().filter(|(module, _)| !module.is_empty()) {
        let Some(own) = place(&module) else {
            wrong.push(format!("{} is in no room: say where in ROOMS", said(&module)));
            continue;
        };
        for other in used {
            if place(&other).is_none_or(|at| at > own) {
                wrong.push(format!("{} uses {}, which comes later", said(&module), said(&other)));
            }
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    let rooms: BTreeSet<String> =
        files().into_keys().filter_map(|module| module.into_iter().next()).collect();
    assert_eq!(rooms, ROOMS.iter().map(|room| (*room).to_owned()).collect(), "a room that is gone, or new");
}

#[test]
fn no_files_of_the_core_go_round_in_a_circle() {
    // A folder's own file and those in it are one idea, and may name each other.
    let is_family = |a: &ModulePath, b: &ModulePath| a.starts_with(b) || b.starts_with(a);
    let mut arrows = arrows();
    for (module, used) in &mut arrows {
        used.retain(|other| !is_family(module, other));
    }
    let reached = |from: &ModulePath| {
        let mut found: BTreeSet<&ModulePath> = BTreeSet::new();
        let mut next: Vec<&ModulePath> = arrows[from].iter().collect();
        while let Some(module) = next.pop() {
            if found.insert(module) {
                next.extend(&arrows[module]);
            }
        }
        found
    };
    let reach: BTreeMap<&ModulePath, BTreeSet<&ModulePath>> =
        arrows.keys().map(|module| (module, reached(module))).collect();
    // Whoever comes back to itself goes round; each circle is told once, by its first file.
    let mut circles = BTreeSet::new();
    for (module, found) in reach.iter().filter(|(module, found)| found.contains(*module)) {
        let round = found.iter().copied().filter(|other| reach[*other].contains(*module));
        circles.insert(round.map(|one| said(one)).collect::<Vec<_>>().join(", "));
    }
    assert!(circles.is_empty(), "go round:\n{}", circles.into_iter().collect::<Vec<_>>().join("\n"));
}
