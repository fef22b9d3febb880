//! No file of the core leads back to itself: who uses whom is read file by file, also inside a trade and among the shared
//! modules at the bottom. A name that a module only hands on counts for the file that defines it.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::Path;

use petgraph::algo::tarjan_scc;
use petgraph::graphmap::DiGraphMap;
use syn::visit::{self, Visit};
use syn::{Item, UseTree, Visibility};

/// A module by its path from the root of the crate.
type Module = Vec<String>;

/// What one file says of itself and of others.
#[derive(Default)]
struct File {
    defines: BTreeSet<String>,
    children: BTreeSet<String>,
    /// Names that it brings in, with where from.
    brings: BTreeMap<String, Vec<String>>,
    /// Paths that it uses; what it only hands on is none of them.
    uses: Vec<Vec<String>>,
}

/// Every circle among the files under a folder, in words: who uses what of whom on it.
pub(crate) fn circles(root: &Path) -> Result<Vec<String>, String> {
    let mut files = BTreeMap::new();
    for path in crate::sources::rust_files(root) {
        let text = fs::read_to_string(&path).map_err(|e| format!("cannot read {}: {e}", path.display()))?;
        let parsed = syn::parse_file(&text).map_err(|e| format!("{}: {e}", path.display()))?;
        files.insert(module_of(root, &path), read(&parsed));
    }
    let edges = edges(&files);
    Ok(strongly_connected(&edges).iter().map(|circle| in_words(circle, &edges)).collect())
}

fn module_of(root: &Path, file: &Path) -> Module {
    let inside = file.strip_prefix(root).unwrap_or(file).with_extension("");
    let parts = inside.components().filter_map(|part| part.as_os_str().to_str()).map(str::to_owned);
    parts.filter(|part| part != "lib").collect()
}

fn is_test(attributes: &[syn::Attribute]) -> bool {
    attributes.iter().any(|attribute| {
        attribute.path().is_ident("cfg")
            && attribute.meta.require_list().is_ok_and(|list| list.tokens.to_string() == "test")
    })
}

fn read(parsed: &syn::File) -> File {
    let mut file = File::default();
    for item in &parsed.items {
        match item {
            Item::Mod(module) if module.content.is_none() => {
                file.children.insert(module.ident.to_string());
            }
            Item::Use(used) => {
                let mut leaves = Vec::new();
                flatten(&used.tree, &mut Vec::new(), &mut leaves);
                for (path, name) in leaves {
                    file.brings.insert(name, path.clone());
                    // A public use of a child's name hands it on.
                    let hands_on = !matches!(used.vis, Visibility::Inherited);
                    if !hands_on {
                        file.uses.push(path);
                    }
                }
            }
            other => {
                file.defines.extend(name_of(other));
            }
        }
    }
    let mut paths = Paths { uses: &mut file.uses };
    for item in &parsed.items {
        let skipped = match item {
            Item::Use(_) => true,
            Item::Mod(module) => is_test(&module.attrs),
            _ => false,
        };
        if !skipped {
            paths.visit_item(item);
        }
    }
    file
}

/// Paths of more than one part in code and types.
struct Paths<'a> {
    uses: &'a mut Vec<Vec<String>>,
}

impl<'ast> Visit<'ast> for Paths<'_> {
    fn visit_path(&mut self, path: &'ast syn::Path) {
        if path.segments.len() > 1 {
            self.uses.push(path.segments.iter().map(|part| part.ident.to_string()).collect());
        }
        visit::visit_path(self, path);
    }

    fn visit_item_use(&mut self, used: &'ast syn::ItemUse) {
        let mut leaves = Vec::new();
        flatten(&used.tree, &mut Vec::new(), &mut leaves);
        self.uses.extend(leaves.into_iter().map(|(path, _)| path));
    }
}

fn name_of(item: &Item) -> Option<String> {
    let ident = match item {
        Item::Const(item) => &item.ident,
        Item::Enum(item) => &item.ident,
        Item::Fn(item) => &item.sig.ident,
        Item::Macro(item) => item.ident.as_ref()?,
        Item::Mod(item) => &item.ident,
        Item::Static(item) => &item.ident,
        Item::Struct(item) => &item.ident,
        Item::Trait(item) => &item.ident,
        Item::Type(item) => &item.ident,
        Item::Union(item) => &item.ident,
        _ => return None,
    };
    Some(ident.to_string())
}

/// The leaves of a use tree: the whole path, and the name under which it is known.
fn flatten(tree: &UseTree, before: &mut Vec<String>, leaves: &mut Vec<(Vec<String>, String)>) {
    match tree {
        UseTree::Path(path) => {
            before.push(path.ident.to_string());
            flatten(&path.tree, before, leaves);
            before.pop();
        }
        UseTree::Name(name) if name.ident == "self" => {
            leaves.push((before.clone(), before.last().cloned().unwrap_or_default()));
        }
        UseTree::Name(name) => {
            leaves.push(([before.as_slice(), &[name.ident.to_string()]].concat(), name.ident.to_string()));
        }
        UseTree::Rename(name) => {
            leaves.push(([before.as_slice(), &[name.ident.to_string()]].concat(), name.rename.to_string()));
        }
        UseTree::Glob(_) => leaves.push((before.clone(), "*".to_owned())),
        UseTree::Group(group) => group.items.iter().for_each(|tree| flatten(tree, before, leaves)),
    }
}

/// The module that defines what a path used in `from` names; `None` of what is not ours.
fn target(files: &BTreeMap<Module, File>, from: &Module, path: &[String], depth: usize) -> Option<Module> {
    let (mut at, rest) = match path.first()?.as_str() {
        "crate" => (Vec::new(), &path[1..]),
        "self" => (from.clone(), &path[1..]),
        "super" => {
            let ups = path.iter().take_while(|part| *part == "super").count();
            (from.get(..from.len().checked_sub(ups)?)?.to_vec(), &path[ups..])
        }
        first => {
            let own = files.get(from)?;
            if !(own.children.contains(first) || own.brings.contains_key(first))
                || own.defines.contains(first)
            {
                return None;
            }
            (from.clone(), path)
        }
    };
    for (index, part) in rest.iter().enumerate() {
        let file = files.get(&at)?;
        if file.children.contains(part) {
            at.push(part.clone());
        } else if let Some(brought) = file.brings.get(part).filter(|_| !file.defines.contains(part)) {
            if depth == 0 || brought == path {
                return None;
            }
            let whole = [brought.as_slice(), &rest[index + 1..]].concat();
            return target(files, &at, &whole, depth - 1);
        } else {
            break;
        }
    }
    Some(at)
}

/// Of each module those that it uses, with the name of something that it uses of each.
type Edges = BTreeMap<Module, BTreeMap<Module, String>>;

fn in_words(circle: &[&Module], edges: &Edges) -> String {
    let mut words = String::from("a circle:");
    for module in circle {
        for (other, name) in edges.get(*module).into_iter().flatten().filter(|(o, _)| circle.contains(o)) {
            words += &format!("\n  {} uses {name} of {}", module.join("::"), other.join("::"));
        }
    }
    words
}

fn edges(files: &BTreeMap<Module, File>) -> Edges {
    let mut edges = Edges::new();
    for (module, file) in files {
        let used = file.uses.iter().filter_map(|path| {
            let name = path.last().cloned().unwrap_or_default();
            Some((target(files, module, path, 8)?, name))
        });
        edges.insert(module.clone(), used.filter(|(other, _)| other != module).collect());
    }
    edges
}

/// Modules that lead back to themselves, all of a circle together.
fn strongly_connected(edges: &Edges) -> Vec<Vec<&Module>> {
    let mut graph: DiGraphMap<&Module, ()> = DiGraphMap::new();
    for (module, others) in edges {
        others.keys().for_each(|other| {
            graph.add_edge(module, other, ());
        });
    }
    tarjan_scc(&graph).into_iter().filter(|circle| circle.len() > 1).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Two files that lead to each other are a circle, also by way of a name that a third hands on; a chain is none.
    #[test]
    fn a_circle_is_found_and_a_chain_is_none() {
        let root = std::env::temp_dir().join(format!("circles-{}", std::process::id()));
        let found = |files: &[(&str, &str)]| {
            fs::create_dir_all(&root).expect("a folder");
            for (name, text) in files {
                fs::write(root.join(name), text).expect("a file");
            }
            let found = circles(&root);
            fs::remove_dir_all(&root).expect("it goes again");
            found.expect("they parse")
        };
        let lib = ("lib.rs", "mod a;\nmod b;\nmod c;");
        let a = ("a.rs", "use crate::b::B;\npub struct A(B);");
        let chain =
            found(&[lib, a, ("b.rs", "use crate::c::C;\npub struct B(C);"), ("c.rs", "pub struct C;")]);
        assert!(chain.is_empty(), "{chain:?}");
        let direct = found(&[lib, a, ("b.rs", "pub struct B;\nfn f(_: crate::a::A) {}"), ("c.rs", "")]);
        assert_eq!(direct.len(), 1);
        assert!(direct[0].contains("b uses A of a"), "{direct:?}");
        let handed_on =
            found(&[lib, a, ("b.rs", "use crate::c::A;\npub struct B;"), ("c.rs", "pub use crate::a::A;")]);
        assert_eq!(handed_on.len(), 1, "{handed_on:?}");
    }
}
