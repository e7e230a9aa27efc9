# A file of jobs as targets of make, so that make -jN runs N shares at a time and make -k goes on beside one that fails.
#   make -f tools/cluster/batch.mk -j4 JOBS=jobs.json SHARES=8
# A share whose mark is there is done; take the marks away with the target clean.
JOBS ?= jobs.json
SHARES ?= 4
LACQUER_CLI ?= lacquer-cli
MARKS := $(addprefix $(JOBS:.json=).work/share-,$(shell seq $(SHARES)))

$(JOBS:.json=)-report.html: $(MARKS)
	$(LACQUER_CLI) batch $(JOBS) --report $(JOBS:.json=)-report

$(MARKS): $(JOBS:.json=).work/share-%: $(JOBS)
	$(LACQUER_CLI) batch $(JOBS) --share $*/$(SHARES) --threads 1
	touch $@

.PHONY: clean
clean:
	rm -f $(MARKS)
