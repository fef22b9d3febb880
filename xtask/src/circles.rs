//! No file of the core leads back to itself: who uses whom is read file by file, also inside a trade and among the shared
//! modules at the bottom. A name that a module only hands on counts for the file that defines it.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::Path;

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

/// Tarjan's strongly connected components of more than one member.
fn strongly_connected(edges: &Edges) -> Vec<Vec<&Module>> {
    struct Walk<'a> {
        edges: &'a Edges,
        index: BTreeMap<&'a Module, usize>,
        low: BTreeMap<&'a Module, usize>,
        stack: Vec<&'a Module>,
        found: Vec<Vec<&'a Module>>,
    }
    impl<'a> Walk<'a> {
        fn visit(&mut self, module: &'a Module) {
            let number = self.index.len();
            self.index.insert(module, number);
            self.low.insert(module, number);
            self.stack.push(module);
            for other in self.edges.get(module).into_iter().flat_map(BTreeMap::keys) {
                let reached = if !self.index.contains_key(other) {
                    self.visit(other);
                    self.low[other]
                } else if self.stack.contains(&other) {
                    self.index[other]
                } else {
                    continue;
                };
                let low = self.low[module].min(reached);
                self.low.insert(module, low);
            }
            if self.low[module] == number {
                let at = self.stack.iter().position(|other| *other == module).unwrap_or(0);
                let circle: Vec<&'a Module> = self.stack.drain(at..).collect();
                if circle.len() > 1 {
                    self.found.push(circle);
                }
            }
        }
    }
    let mut walk =
        Walk { edges, index: BTreeMap::new(), low: BTreeMap::new(), stack: Vec::new(), found: Vec::new() };
    for module in edges.keys() {
        if !walk.index.contains_key(module) {
            walk.visit(module);
        }
    }
    walk.found
}
