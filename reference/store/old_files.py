"""Files as earlier versions of the tables left them."""
import json
import os
import re
import sqlite3

ROOT = os.path.join(os.path.dirname(os.path.abspath(__file__)), '..', '..')
src = open(os.path.join(ROOT, 'crates/store/src/tables.rs')).read()
steps = re.findall(r'M::up\(\s*"(.*?)",\s*\)', src, re.S)[:4]
brief = json.load(open(os.path.join(ROOT, 'docs/examples/box-room.brief.json')))
def doc(name):
    b = dict(brief); b['name'] = name
    return json.dumps(b, indent=2)
for v in range(1, 5):
    p = os.path.join(ROOT, f'crates/store/tests/files/version-{v}.db')
    if os.path.exists(p): os.remove(p)
    c = sqlite3.connect(p); 
    for s in steps[:v]: c.executescript(s)
    c.execute(f'PRAGMA user_version={v}')
    c.execute("INSERT INTO corner (name,revision,updated_ms,document) VALUES ('three',3,3000,?)", [doc('three')])
    for n, name in enumerate(['one','two','three'], 1):
        if v == 1: c.execute("INSERT INTO revision VALUES (1,?,?,?)", [n, n*1000, doc(name)])
        elif v < 4: c.execute("INSERT INTO revision (corner,number,at_ms,document,undo_to) VALUES (1,?,?,?,?)", [n, n*1000, doc(name), n-1 or None])
        else: c.execute("INSERT INTO revision (corner,number,at_ms,document,undo_to,save_key) VALUES (1,?,?,?,?,?)", [n, n*1000, doc(name), n-1 or None, f'k{n}'])
    if v >= 3: c.execute("INSERT INTO voice VALUES (1, x'52494646')")
    if v >= 4:
        c.execute("INSERT INTO corner (name,revision,updated_ms,document,deleted_ms) VALUES ('gone',1,1,?,?)", [doc('gone'), 32503680000000])
        c.execute("INSERT INTO revision (corner,number,at_ms,document) VALUES (2,1,1,?)", [doc('gone')])
    c.commit(); c.execute('VACUUM'); c.close()
