use std::net::SocketAddr;
use std::path::PathBuf;

use store::Store;
use tempfile::TempDir;
use tokio::net::TcpListener;
use tokio::sync::oneshot;
use tokio::task::JoinHandle;

/// The program in this process, over a file of its own.
#[derive(Debug)]
pub struct Program {
    address: SocketAddr,
    file: PathBuf,
    running: Option<(oneshot::Sender<()>, JoinHandle<()>, Store)>,
    gauge: Option<SocketAddr>,
    supplier: Option<SocketAddr>,
    module: Option<SocketAddr>,
    _folder: TempDir,
}

impl Program {
    /// An empty shop.
    ///
    /// # Errors
    /// When the file or a port cannot be had.
    pub async fn empty_shop() -> anyhow::Result<Self> {
        Self::start(false).await
    }

    /// The sample shop.
    ///
    /// # Errors
    /// When the file or a port cannot be had.
    pub async fn sample_shop() -> anyhow::Result<Self> {
        Self::start(true).await
    }

    async fn start(sample: bool) -> anyhow::Result<Self> {
        let folder = tempfile::tempdir()?;
        let file = folder.path().join("shop.sqlite");
        let address = SocketAddr::from(([127, 0, 0, 1], 0));
        let mut program =
            Self { address, file, running: None, gauge: None, supplier: None, module: None, _folder: folder };
        if sample {
            server::sample::fill(&Store::open(&program.file)?).await?;
        }
        program.run().await?;
        Ok(program)
    }

    /// The same with a digital gauge in its bay.
    ///
    /// # Errors
    /// When the port was taken meanwhile.
    pub async fn with_gauge(mut self, address: SocketAddr) -> anyhow::Result<Self> {
        self.gauge = Some(address);
        self.kill().await;
        self.run().await?;
        Ok(self)
    }

    /// The same with a supplier that can be asked.
    ///
    /// # Errors
    /// When the port was taken meanwhile.
    pub async fn with_supplier(mut self, address: SocketAddr) -> anyhow::Result<Self> {
        self.supplier = Some(address);
        self.kill().await;
        self.run().await?;
        Ok(self)
    }

    /// The same with a car's module.
    ///
    /// # Errors
    /// When the port was taken meanwhile.
    pub async fn with_module(mut self, address: SocketAddr) -> anyhow::Result<Self> {
        self.module = Some(address);
        self.kill().await;
        self.run().await?;
        Ok(self)
    }

    /// Runs (again), at the address it had before.
    ///
    /// # Errors
    /// When the port was taken meanwhile.
    pub async fn run(&mut self) -> anyhow::Result<()> {
        let store = Store::open(&self.file)?;
        let listener = TcpListener::bind(self.address).await?;
        self.address = listener.local_addr()?;
        let shop = server::AppState::new(store.clone());
        let shop = match self.gauge {
            Some(address) => shop.with_gauge(server::gauge::LineGauge::at(address)),
            None => shop,
        };
        let shop = match self.supplier {
            Some(address) => shop.with_supplier(server::supplier::HttpSupplier::at(address)?),
            None => shop,
        };
        let shop = match self.module {
            Some(address) => shop.with_module(server::car_module::LineModule::at(address)),
            None => shop,
        };
        let (stop, stopped) = oneshot::channel::<()>();
        let running = tokio::spawn(async move {
            let until = async move {
                // A dropped sender stops it as well.
                let _ = stopped.await;
            };
            if let Err(error) = server::serve(listener, shop, until).await {
                eprintln!("the server ended: {error}");
            }
        });
        self.running = Some((stop, running, store));
        Ok(())
    }

    /// Stops at once, as when its process is killed: connections are cut.
    pub async fn kill(&mut self) {
        if let Some((stop, running, store)) = self.running.take() {
            running.abort();
            let _ = running.await;
            drop(stop);
            // What a process's end does as well, and a task's does not: the file is let go of.
            let _ = store.close();
        }
    }

    /// Puts another file in the place of its own, while it does not run.
    ///
    /// # Errors
    /// When it cannot be copied.
    pub fn put(&self, file: &std::path::Path) -> anyhow::Result<()> {
        std::fs::copy(file, &self.file)?;
        Ok(())
    }

    /// Its file.
    pub fn file(&self) -> &std::path::Path {
        &self.file
    }

    /// An address in the program.
    pub fn url(&self, path: &str) -> String {
        format!("http://{}{path}", self.address)
    }
}
