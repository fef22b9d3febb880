//! The word that the process is to end, by Ctrl-C or from the system, and how often it has come.

use std::io;

use tokio::sync::watch;

/// Hears the word from the moment this is made, so that none is missed before or between those who wait for it.
pub(crate) struct StopSignal(watch::Receiver<usize>);

impl StopSignal {
    /// # Errors
    /// The system lets no signal be heard.
    pub(crate) fn listen() -> io::Result<Self> {
        let mut words = Words::listen()?;
        let (count, heard) = watch::channel(0);
        tokio::spawn(async move {
            loop {
                words.next().await;
                count.send_modify(|times| *times += 1);
            }
        });
        Ok(Self(heard))
    }

    /// Ends once the word has come so often.
    pub(crate) fn has_come(&self, times: usize) -> impl Future<Output = ()> + use<> {
        let mut heard = self.0.clone();
        async move {
            // It is counted as long as the runtime is there.
            let _ = heard.wait_for(|count| *count >= times).await;
        }
    }
}

#[cfg(unix)]
struct Words {
    interrupt: tokio::signal::unix::Signal,
    terminate: tokio::signal::unix::Signal,
}

#[cfg(unix)]
impl Words {
    fn listen() -> io::Result<Self> {
        use tokio::signal::unix::{SignalKind, signal};
        Ok(Self { interrupt: signal(SignalKind::interrupt())?, terminate: signal(SignalKind::terminate())? })
    }

    async fn next(&mut self) {
        tokio::select! {
            _ = self.interrupt.recv() => {}
            _ = self.terminate.recv() => {}
        }
    }
}

#[cfg(windows)]
struct Words(tokio::signal::windows::CtrlC);

#[cfg(windows)]
impl Words {
    fn listen() -> io::Result<Self> {
        tokio::signal::windows::ctrl_c().map(Self)
    }

    async fn next(&mut self) {
        self.0.recv().await;
    }
}
