//! `cargo xtask demo` and `cargo xtask test`, and the checks they run. Few dependencies, so that it
//! builds in a second on a fresh machine.

mod circles;
mod directions;
mod licences;
mod sources;
mod steps;

use std::process::ExitCode;

const HELP: &str = "cargo xtask demo [--port N]   build what is missing and serve the demo corner
cargo xtask test [PART ..]    install what the tests need, then run everything, or the parts named:
                              format lint directions licences types web rust
cargo xtask types             regenerate the page's types from the OpenAPI document
cargo xtask screenshots       take the pictures of docs/screenshots again";

fn main() -> ExitCode {
    let arguments: Vec<String> = std::env::args().skip(1).collect();
    let rest = arguments.get(1..).unwrap_or_default();
    let outcome = match arguments.first().map(String::as_str) {
        Some("demo") => steps::demo(rest),
        Some("test") => steps::test(rest),
        Some("types") => steps::types(),
        Some("screenshots") => steps::screenshots(),
        Some("directions") => directions::check(),
        _ => {
            println!("{HELP}");
            return ExitCode::from(u8::from(!arguments.is_empty() && arguments[0] != "help") * 2);
        }
    };
    match outcome {
        Ok(()) => ExitCode::SUCCESS,
        Err(message) => {
            eprintln!("\n{message}");
            ExitCode::FAILURE
        }
    }
}
